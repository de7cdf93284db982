import { readCookie, writeCookie } from "../client/cookies.ts";

const NAME = "zone";
/** How many minutes that browser's clock was behind UTC when it told. */
const OFFSET = "zone_offset";

/** Lets the server know the time zone of this browser, so that it draws hours as they are read here. */
export function tellTimeZone(): void {
  // What the browser's hours are told by takes it long to say: it is asked when its clock goes otherwise than at the last time.
  const offset = String(new Date().getTimezoneOffset());
  if (readCookie(NAME) !== "" && readCookie(OFFSET) === offset) return;
  writeCookie(NAME, Intl.DateTimeFormat().resolvedOptions().timeZone);
  writeCookie(OFFSET, offset);
}

/** The time zone that a browser has told; undefined when it has not, or when there is none of that name. */
export function toldTimeZone(cookies: string): string | undefined {
  const timeZone = readCookie(NAME, cookies);
  if (timeZone === "") return undefined;
  try {
    return new Intl.DateTimeFormat("en", { timeZone }).resolvedOptions().timeZone;
  } catch {
    return undefined;
  }
}
