import { spelledPath } from "./path-key.ts";

/**
 * Whether a path, with its query where there is one, begins as one of these do: `/shop/` is all that stands beneath it and
 * `/shop` itself, `/shop` also `/shopping`. How either is percent-encoded makes no difference (RFC 3986 section 6.2.2).
 */
export function beginsAsOne(target: string, starts: readonly string[]): boolean {
  if (starts.length === 0) return false;
  const whole = spelledStart(target);
  const path = whole.replace(/\?.*/s, "");
  return starts.map(spelledStart).some((start) => whole.startsWith(start) || `${path}/` === start);
}

/** The beginning of a path as paths are compared with it. */
export function spelledStart(start: string): string {
  const mark = start.indexOf("?");
  return mark === -1 ? spelledPath(start) : spelledPath(start.slice(0, mark)) + start.slice(mark);
}
