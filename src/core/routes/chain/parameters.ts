import { headerSafe } from "./header-safe.ts";

/** What is wrong with fixed parameters as they are typed; undefined when nothing is. */
export function parametersFault(text: string): string | undefined {
  if (text === "") return undefined;
  if (/[#\s]/.test(text)) return "Parameters are name=value pairs with & between, without spaces or #.";
  const nameless = text.split("&").find((pair) => pair === "" || pair.startsWith("="));
  return nameless === undefined
    ? undefined
    : "Each parameter has a name, such as source=booklet; put one & between two of them.";
}

/** The destination with the fixed parameters behind its own, before any fragment. */
export function withParameters(destination: string, parameters: string): string {
  if (parameters === "") return destination;
  const hash = destination.indexOf("#");
  const base = hash === -1 ? destination : destination.slice(0, hash);
  const joint = !base.includes("?") ? "?" : /[?&]$/.test(base) ? "" : "&";
  return `${base}${joint}${headerSafe(parameters)}${hash === -1 ? "" : destination.slice(hash)}`;
}
