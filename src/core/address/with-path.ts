import { from } from "../text/cut.ts";

/** An address with another path: scheme and host before it and query and heading behind it stay. */
export function withPath(address: string, path: string): string {
  const before = /^(?:https?:)?\/\/[^/?#]*/i.exec(address)?.[0] ?? "";
  return before + path + from(address, "?#");
}
