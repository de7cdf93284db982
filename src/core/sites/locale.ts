/** Whether a text is a language tag (BCP 47) that can be written by. */
export function isLanguage(tag: string): boolean {
  try {
    // Longer first parts are kept free for languages that may get one; there are none.
    return /^[a-z]{2,3}(?:-|$)/.test(tag) && Intl.getCanonicalLocales(tag)[0] === tag;
  } catch {
    return false; // it is not well-formed
  }
}

/** Whether a text is a time zone of the IANA database, or empty for that of whoever looks. */
export function isTimeZone(name: string): boolean {
  if (name === "") return true;
  // Offsets such as +01:00 are no places: they do not know of summer.
  if (!/^[A-Za-z]/.test(name)) return false;
  try {
    return new Intl.DateTimeFormat("en", { timeZone: name }).resolvedOptions().timeZone !== undefined;
  } catch {
    return false; // there is none of that name
  }
}

let regions: Intl.DisplayNames | undefined;

/** Whether it is the code of a country: two letters that stand for one (ISO 3166-1). */
export function isCountry(code: string): boolean {
  if (!/^[A-Z]{2}$/.test(code)) return false;
  // Made when it is asked for: a browser takes long over it.
  regions ??= new Intl.DisplayNames("en", { type: "region", fallback: "none" });
  const name = regions.of(code);
  return name !== undefined && name !== regions.of("ZZ");
}

/** In which direction a language is written. */
export function directionOf(language: string): "ltr" | "rtl" {
  // Every engine we run in has it; TypeScript's library does not yet.
  const { textInfo } = new Intl.Locale(language) as { textInfo?: { direction: "ltr" | "rtl" } };
  return textInfo?.direction ?? "ltr";
}
