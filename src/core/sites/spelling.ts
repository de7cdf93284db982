import { z } from "zod";
import { pathKey } from "../address/path-key.ts";
import { SLASHES } from "./choices.ts";

/** How the paths of pages end: as each page's own path does, or all alike. */
export const slashSchema = z.enum(SLASHES, `Slashes are one of ${SLASHES.join(", ")}.`);
export type Slashes = z.infer<typeof slashSchema>;

/** A name with an ending, such as feed.html: what looks like a file gets no slash. */
const FILE_NAME = /\.[a-z0-9]{1,10}$/i;

/**
 * The one spelling of a page's path that readers are to see (RFC 3986, section 6.2: normalised encoding, no dot
 * segments), with or without a slash at its end as the site has chosen. Every other spelling leads to it.
 */
export function spelledPath(path: string, slashes: Slashes = "written"): string {
  const key = pathKey(path);
  const ends = slashes === "written" ? path.endsWith("/") : slashes === "with" && !FILE_NAME.test(key);
  return ends && key !== "/" ? `${key}/` : key;
}
