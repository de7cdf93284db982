import { readCookie, writeCookie } from "../client/cookies.ts";

const NAME = "zone";

/** Lets the server know the time zone of this browser, so that it draws hours as they are read here. */
export function tellTimeZone(): void {
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  if (readCookie(NAME) !== timeZone) writeCookie(NAME, timeZone);
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
