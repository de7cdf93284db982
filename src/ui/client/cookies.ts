import { serverFrame } from "../frame/frame.ts";

const YEAR_S = 31_536_000;

/** What this browser keeps for itself under a name and tells the server, so that it draws as it was left; empty: nothing. */
export function readCookie(name: string, cookies = serverFrame()?.cookies ?? document.cookie): string {
  const kept = cookies.split("; ").find((one) => one.startsWith(`maprope_${name}=`));
  try {
    return decodeURIComponent(kept?.slice(kept.indexOf("=") + 1) ?? "");
  } catch {
    return ""; // anybody can write a cookie
  }
}

/** Keeps it; what is empty is forgotten. */
export function writeCookie(name: string, value: string): void {
  const seconds = value === "" ? 0 : YEAR_S;
  document.cookie = `maprope_${name}=${encodeURIComponent(value)}; Path=/; Max-Age=${seconds}; SameSite=Lax`;
}
