import type { Repair } from "../address.ts";

// A name without the signs that need quoting (RFC 5322 section 3.2.3), or encoding in an address.
const MAILBOX = /^[^\s@/:?#\\"<>()[\],;`^{|}]+@[\p{L}\p{M}\p{N}.-]+\.[\p{L}\p{M}\p{N}-]{2,}$/u;
const NAMED = /^(?:"[^"]{0,200}"|[^<>"@]{0,200}?)\s{0,20}<([^<>\s]{3,320})>$/;
const PHONE = /^(?:\+|00)[\d\s().\-/]{6,24}$/;
const EXTENSION = /(?:;\s?ext=|,?\s?(?:ext\.?|extension|x)\s?)(\d{1,10})$/i;
/** Fields that mail programs fill in (RFC 6068 section 4). */
const MAIL_FIELD = /^(?:subject|body|cc|bcc|to|in-reply-to|keywords)$/i;

/** A text that is one mail address, or one with a name in front, as `mailto:`; undefined for all others. */
export function mailIn(text: string): string | undefined {
  const address = NAMED.exec(text)?.[1] ?? text;
  const query = address.indexOf("?");
  const mailbox = query === -1 ? address : address.slice(0, query);
  if (!MAILBOX.test(mailbox) || /\s/.test(address)) return undefined;
  return `mailto:${address}`;
}

/**
 * A `mailto:` as RFC 6068 writes it: several people with commas between them, fields percent-encoded; nobody at all
 * where a field says what it is about. Undefined for one that leads to no mailbox.
 */
export function mailAddress(text: string, repairs: Repair[]): string | undefined {
  const rest = text.slice("mailto:".length);
  const query = rest.indexOf("?");
  const people = (query === -1 ? rest : rest.slice(0, query))
    .replace(/;/g, ",")
    .split(",")
    .map((one) => NAMED.exec(one.trim())?.[1] ?? one.trim())
    .filter(Boolean);
  if (people.some((one) => !MAILBOX.test(decoded(one)))) return undefined;
  const fields =
    query === -1
      ? []
      : rest
          .slice(query + 1)
          .split("&")
          .filter(Boolean);
  if (fields.some((field) => !MAIL_FIELD.test(field.split("=")[0]!))) return undefined;
  if (people.length === 0 && fields.length === 0) return undefined;
  const written = `mailto:${people.join(",")}${fields.length > 0 ? `?${fields.map(encodedField).join("&")}` : ""}`;
  if (written !== text)
    repairs.push({ code: "encoded", message: "Wrote the mail address as mailto: wants it." });
  return written;
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text; // a stray % is a sign of the name
  }
}

function encodedField(field: string): string {
  return field.replace(/[^\w\-.~%!$'()*+,;:@/?=]+/g, (signs) => encodeURIComponent(signs.toWellFormed()));
}

/** True for a text that reads as a phone number with its country. */
export function isPhone(text: string): boolean {
  return PHONE.test(text.replace(EXTENSION, ""));
}

/** True for digits as people write a number at home: which country it is in, it does not say. */
export function isLocalPhone(text: string): boolean {
  const number = text.replace(EXTENSION, "");
  if (/^\(?0[\d\s().\-/]{6,20}$/.test(number)) return number.replace(/\D/g, "").length >= 7;
  return /^(?:\(\d{2,4}\)\s?|\d{3}[-. ])\d{3}[-. ]?\d{4}$/.test(number);
}

/**
 * A phone number as `tel:` (RFC 3966): digits with the country in front, its extension behind. The zero in brackets
 * that is dialled at home alone is left out. Undefined for what is no number.
 */
export function phoneAddress(text: string, repairs: Repair[]): string | undefined {
  const typed = text.replace(/^tel:/i, "");
  const extension = EXTENSION.exec(typed)?.[1];
  const number = typed.replace(EXTENSION, "");
  const withoutTrunk = number.replace(/^((?:\+|00)[\d\s.-]{1,5})\(0\)/, "$1");
  const digits = withoutTrunk.replace(/[\s().\-/]/g, "").replace(/^00/, "+");
  if (!/^\+?\d{3,15}$/.test(digits)) return undefined;
  const written = `tel:${digits}${extension === undefined ? "" : `;ext=${extension}`}`;
  if (withoutTrunk !== number)
    repairs.push({
      code: "encoded",
      message: "Left out the (0): behind the country's code it is not dialled.",
    });
  else if (written !== text)
    repairs.push({ code: "encoded", message: "Wrote the number as tel: wants it, digits only." });
  return written;
}
