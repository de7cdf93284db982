import { currencyDigits } from "./currencies.ts";

/** Money in the smallest unit of its currency (cents, øre, yen), as a whole number. */
export type Minor = number;

export type ReadAmount = { ok: true; minor: Minor } | { ok: false; reason: string };

/** Which sign stands before the decimals. */
export type DecimalSign = "." | ",";

const USUAL = /^\d{1,12}\.\d\d$/;

/**
 * Reads an amount by a grammar, exactly and never through a fraction of two: one sign at most (a minus of any kind in
 * front or behind, or brackets), one label at most (the currency's code or sign), a number with groups of one kind. What
 * has no reading, or two, is refused; so are decimals beyond the currency's that are not zeros, another currency's code,
 * and amounts beyond 2^53.
 */
export function readAmount(text: string, currency: string, decimal: DecimalSign): ReadAmount {
  const digits = currencyDigits(currency);
  if (digits === undefined) return { ok: false, reason: `“${currency}” is no currency of ISO 4217.` };
  // The usual form is told first: reports have a million of them (`npm run bench -- programs`).
  if (decimal === "." && digits === 2 && USUAL.test(text))
    return { ok: true, minor: Number(text.slice(0, -3) + text.slice(-2)) };
  const refused = {
    ok: false,
    reason: `“${text}” is no amount written with “${decimal}” before the decimals.`,
  } as const;
  const signed = withoutSign(text.trim());
  if (!signed) return refused;
  const { label, number } = signed;
  if (/^[A-Z]{3}$/.test(label) && label !== currency && currencyDigits(label) !== undefined)
    return { ok: false, reason: `“${text}” is in ${label}, not in ${currency}.` };
  const parts = partsOf(number, decimal);
  if (!parts) return refused;
  const { whole, fraction } = parts;
  if (/[1-9]/.test(fraction.slice(digits)))
    return { ok: false, reason: `“${text}” has more decimals than ${currency}, which has ${digits}.` };
  const minor = Number(`${whole || "0"}${fraction.slice(0, digits).padEnd(digits, "0")}`);
  if (!Number.isSafeInteger(minor)) return { ok: false, reason: `“${text}” is too large to be an amount.` };
  return { ok: true, minor: signed.isNegative && minor !== 0 ? -minor : minor };
}

const MINUS = "\\-\\u2010-\\u2015\\u2212\\uFE63\\uFF0D";
// A code, a sign, or an abbreviation of a few letters, such as kr., Rs. or R$.
const LABEL = "(?:\\p{L}{0,3}\\p{Sc}|\\p{L}{1,4}\\.?)";
const SPACE = "[\\s\\u00A0\\u202F]{0,3}";
const AMOUNT = new RegExp(
  `^(?<open>\\()?${SPACE}(?<before>[+${MINUS}])?${SPACE}(?<label>${LABEL})?${SPACE}(?<within>[+${MINUS}])?${SPACE}` +
    `(?<number>[\\d.,][\\d.,'’\\s\\u00A0\\u202F]*?)(?<none>[.,][${MINUS}]{1,2})?${SPACE}(?<behind>[${MINUS}])?${SPACE}(?<last>${LABEL})?${SPACE}(?<close>\\))?$`,
  "u",
);
const LONGEST = 60;

// The number, and what is said around it; undefined where that has no reading, or says a thing twice.
function withoutSign(text: string): { isNegative: boolean; label: string; number: string } | undefined {
  const groups = text.length > LONGEST ? undefined : AMOUNT.exec(text)?.groups;
  if (!groups) return undefined;
  const { open, before, label, within, number, none, behind, last, close } = groups;
  if ((open === undefined) !== (close === undefined) || (label !== undefined && last !== undefined))
    return undefined;
  const signs = [before, within, behind].filter((sign) => sign !== undefined);
  if (signs.length + (open === undefined ? 0 : 1) > 1 || (none !== undefined && behind !== undefined))
    return undefined;
  // “A-12” is the name of something; “€-12” and “EUR-12” are amounts.
  const isName =
    label !== undefined &&
    within !== undefined &&
    /\p{L}$/u.test(label) &&
    currencyDigits(label) === undefined;
  if (isName && text.includes(label + within)) return undefined;
  const isNegative = open !== undefined || signs.some((sign) => sign !== "+");
  return { isNegative, label: label ?? last ?? "", number: number!.trim() };
}

const GROUPS = [" ", "\u00A0", "\u202F", "'", "’"];

// Whole and decimals of a number. Groups are of three, or of two before the last three as in India, all with one sign.
function partsOf(number: string, decimal: DecimalSign): { whole: string; fraction: string } | undefined {
  const [grouped = "", fraction = "", ...more] = number.split(decimal);
  if (more.length > 0 || !/^\d*$/.test(fraction) || (grouped === "" && fraction === "")) return undefined;
  if (/^\d*$/.test(grouped)) return { whole: grouped, fraction };
  const signs = [decimal === "." ? "," : ".", ...GROUPS].filter((sign) => grouped.includes(sign));
  const [first = "", ...others] = signs.length === 1 ? grouped.split(signs[0]!) : [];
  const last = others.pop();
  const isGroups = /^\d{1,3}$/.test(first) && last !== undefined && /^\d{3}$/.test(last);
  if (!isGroups) return undefined;
  const isOfThree = others.every((group) => /^\d{3}$/.test(group));
  const isOfTwo = first.length < 3 && others.length > 0 && others.every((group) => /^\d{2}$/.test(group));
  return isOfThree || isOfTwo ? { whole: first + others.join("") + last, fraction } : undefined;
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

/** Which clicks earnings are divided by. */
export type ClicksOf = "ours" | "networks";

/**
 * The clicks that earnings are to be divided by. Ours are those on short links; where a network counted more, it counted
 * readers on links that go straight to it, which we cannot see, and its number is the whole. Where it counted fewer, its
 * report leaves days out.
 */
export function clicksToDivideBy(
  ours: number,
  networks: number | null,
): { clicks: number; of: ClicksOf | null } {
  if (networks !== null && networks > ours) return { clicks: networks, of: "networks" };
  return { clicks: ours, of: ours > 0 ? "ours" : null };
}
