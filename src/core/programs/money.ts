/** Money in the smallest unit of its currency (cents, øre, yen), as a whole number. */
export type Minor = number;

export type ReadAmount = { ok: true; minor: Minor } | { ok: false; reason: string };

/** Which sign stands before the decimals. */
export type DecimalSign = "." | ",";

const USUAL = /^\d{1,12}\.\d\d$/;
const digitsKnown = new Map<string, number | undefined>();

/** How many decimals a currency has (ISO 4217); undefined when there is no such currency. */
export function currencyDigits(currency: string): number | undefined {
  if (!digitsKnown.has(currency)) digitsKnown.set(currency, findDigits(currency));
  return digitsKnown.get(currency);
}

const CURRENCIES: ReadonlySet<string> = new Set(Intl.supportedValuesOf("currency"));

function findDigits(currency: string): number | undefined {
  if (!CURRENCIES.has(currency)) return undefined;
  return new Intl.NumberFormat("en", { style: "currency", currency }).resolvedOptions().maximumFractionDigits;
}

/**
 * Reads an amount exactly, without ever passing through a fraction of two: sign, groups of thousands, a currency sign
 * beside it. Decimals beyond those of the currency are refused unless they are zeros; so are amounts beyond 2^53.
 */
export function readAmount(text: string, currency: string, decimal: DecimalSign): ReadAmount {
  const digits = currencyDigits(currency);
  if (digits === undefined) return { ok: false, reason: `“${currency}” is no currency of ISO 4217.` };
  // The usual form is told first: reports have a million of them (`npm run bench -- programs`).
  if (decimal === "." && digits === 2 && USUAL.test(text))
    return { ok: true, minor: Number(text.slice(0, -3) + text.slice(-2)) };
  const negative = isNegative(text.trim());
  const bare = text.replace(/[^\d.,]/g, "");
  const group = decimal === "." ? "," : ".";
  const shape = decimal === "." ? /^(?:\d+|\d{1,3}(?:,\d{3})+)(?:\.\d*)?$|^\.\d+$/ : /^(?:\d+|\d{1,3}(?:\.\d{3})+)(?:,\d*)?$|^,\d+$/; // prettier-ignore
  if (!shape.test(bare) || /\d[^\d.,\s'’\u00A0\u202F]+\d/.test(text))
    return { ok: false, reason: `“${text}” is no amount written with “${decimal}” before the decimals.` };
  const [whole = "", fraction = ""] = bare.replaceAll(group, "").split(decimal);
  if (/[1-9]/.test(fraction.slice(digits)))
    return { ok: false, reason: `“${text}” has more decimals than ${currency}, which has ${digits}.` };
  const minor = Number(`${whole || "0"}${fraction.slice(0, digits).padEnd(digits, "0")}`);
  if (!Number.isSafeInteger(minor)) return { ok: false, reason: `“${text}” is too large to be an amount.` };
  return { ok: true, minor: negative && minor !== 0 ? -minor : minor };
}

// In brackets, with a minus before the digits, or behind them.
function isNegative(text: string): boolean {
  return (text.startsWith("(") && text.endsWith(")")) || /^[^\d]*[-−]/.test(text) || /[-−]$/.test(text);
}

/** An amount as a decimal number with a point, as the API and CSV write it. */
export function amountText(minor: Minor, currency: string): string {
  const digits = currencyDigits(currency) ?? 2;
  const sign = minor < 0 ? "-" : "";
  const text = String(Math.abs(minor)).padStart(digits + 1, "0");
  return digits === 0 ? `${sign}${text}` : `${sign}${text.slice(0, -digits)}.${text.slice(-digits)}`;
}

/** Earnings per 100 clicks, in minor units, rounded half away from zero; null without clicks. */
export function earningsPer100(minor: Minor, clicks: number): Minor | null {
  if (clicks <= 0) return null;
  const exact = (BigInt(Math.abs(minor)) * 200n + BigInt(clicks)) / (2n * BigInt(clicks));
  return Number(minor < 0 ? -exact : exact);
}
