import { isSupportedCountry, parsePhoneNumberFromString } from "libphonenumber-js/min";

/**
 * A number as it is dialled within a country (ISO 3166-1, two letters) as `tel:` with the country's code in front
 * (RFC 3966). Undefined for a country that is not known, and for what cannot be a number there.
 */
export function homePhone(text: string, country: string): string | undefined {
  if (!isSupportedCountry(country)) return undefined;
  const number = parsePhoneNumberFromString(text, country);
  return number?.isPossible() ? number.getURI() : undefined;
}
