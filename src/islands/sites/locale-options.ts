import type { Option } from "../../ui/choose/options.ts";
import { written } from "../../ui/format/written.ts";

const LANGUAGES =
  "ar cs da de de-AT de-CH el en-AU en-CA en-GB en-IE en-US es es-MX et fi fr fr-BE fr-CA fr-CH he hi hu id it ja ko lt lv nb nl nl-BE pl pt pt-BR ro sk sl sv th tr uk vi zh-Hans zh-Hant".split(
    " ",
  );

// A browser takes long over making what knows names: they are made when they are wanted, once.
let languages: Intl.DisplayNames | undefined;
let regions: Intl.DisplayNames | undefined;
let languageChoices: Option[] | undefined;

/** Languages by their names; any other tag may be typed. */
export function languageOptions(): Option[] {
  languageChoices ??= LANGUAGES.map((tag) => ({ value: tag, word: nameOf(tag), note: tag }));
  return languageChoices;
}

/** The name of a language by its tag (BCP 47). */
export function languageName(tag: string): string {
  return written(`language ${tag}`, () => nameOf(tag));
}

function nameOf(tag: string): string {
  languages ??= new Intl.DisplayNames("en", { type: "language" });
  return languages.of(tag) ?? tag;
}

/** The name of a country by its code (ISO 3166-1). */
export function countryName(code: string): string {
  return written(`country ${code}`, () => {
    regions ??= new Intl.DisplayNames("en", { type: "region" });
    return regions.of(code) ?? code;
  });
}

/** The time zones that the browser knows. */
export function timeZoneOptions(): Option[] {
  return ["UTC", ...Intl.supportedValuesOf("timeZone")].map((name) => ({
    value: name,
    word: name.replaceAll("_", " "),
  }));
}
