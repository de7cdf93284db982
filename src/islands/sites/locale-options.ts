import type { Option } from "../../ui/choose/options.ts";

const LANGUAGES =
  "ar cs da de de-AT de-CH el en-AU en-CA en-GB en-IE en-US es es-MX et fi fr fr-BE fr-CA fr-CH he hi hu id it ja ko lt lv nb nl nl-BE pl pt pt-BR ro sk sl sv th tr uk vi zh-Hans zh-Hant".split(
    " ",
  );

/** Languages by their names; any other tag may be typed. */
export function languageOptions(): Option[] {
  const names = new Intl.DisplayNames("en", { type: "language" });
  return LANGUAGES.map((tag) => ({ value: tag, word: names.of(tag) ?? tag, note: tag }));
}

const REGIONS = new Intl.DisplayNames("en", { type: "region" });

/** The name of a country by its code (ISO 3166-1). */
export function countryName(code: string): string {
  return REGIONS.of(code) ?? code;
}

/** The time zones that the browser knows. */
export function timeZoneOptions(): Option[] {
  return ["UTC", ...Intl.supportedValuesOf("timeZone")].map((name) => ({
    value: name,
    word: name.replaceAll("_", " "),
  }));
}
