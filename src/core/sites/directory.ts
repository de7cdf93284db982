import { z } from "zod";

/** Where short links of a site begin: empty, or path segments between slashes, such as `/to/`. */
export const directorySchema = z
  .string()
  .regex(
    /^(?:\/(?:[A-Za-z0-9._~-]+\/)*)?$/,
    "The prefix starts and ends with a slash, such as /to/, or is empty.",
  );

/**
 * A path that begins with the directory `from`, in `to`; undefined where it begins otherwise, or is in `to` already. Short links
 * are the same in either case.
 */
export function movedPath(path: string, from: string, to: string): string | undefined {
  const begins = (directory: string): boolean => path.toLowerCase().startsWith(directory.toLowerCase());
  if (!begins(from) || (to.length > from.length && begins(to)) || path.length === from.length)
    return undefined;
  return to + path.slice(from.length);
}

/** The same for an address as it stands in a text: a path of the site, or one with a host of ours in front. */
export function movedAddress(address: string, from: string, to: string): string | undefined {
  const [front] = /^(?:https?:)?(?:\/\/[^/?#]*)?/i.exec(address)!;
  const moved = movedPath(address.slice(front.length), from, to);
  return moved === undefined ? undefined : front + moved;
}
