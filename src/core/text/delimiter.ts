const SIGNS = [",", ";", "\t", "|"] as const;

/** The sign that stands between the cells of a table: the one that its first line has most of. */
export function delimiterOf(text: string): string {
  const head = text.slice(0, text.search(/[\r\n]|$/));
  const count = (sign: string): number => head.split(sign).length;
  return SIGNS.reduce<string>((best, sign) => (count(sign) > count(best) ? sign : best), ",");
}
