import { unzipSync } from "fflate";
import { MAX_FILE } from "../../../core/files/file.ts";
import { invalid } from "../../ground/problem.ts";

const MAX_ENTRIES = 2_000;
const MAX_BYTES = 200_000_000;

/** A file out of an archive, or why it was left there. */
export type Unpacked = { name: string; content: Uint8Array } | { name: string; refusal: string };

/**
 * Unpacks a zip archive. Sizes are judged from its directory before anything is unpacked, so that a small
 * archive cannot become a huge heap; names that climb out of the archive are refused.
 */
export function unpackZip(archive: Uint8Array): Unpacked[] {
  const refused: Unpacked[] = [];
  let entries = 0;
  let bytes = 0;
  try {
    const files = unzipSync(archive, {
      filter({ name, originalSize }) {
        entries += 1;
        if (entries > MAX_ENTRIES)
          throw new TooMuch(`The archive holds more than ${MAX_ENTRIES} files; import them in portions.`);
        if (name.endsWith("/") || (/(?:^|\/)(?:__MACOSX|\.[^/]*)(?:\/|$)/.test(name) && !name.includes("..")))
          return false;
        const fault =
          nameFault(name) ??
          (originalSize > MAX_FILE
            ? `it unpacks to ${Math.ceil(originalSize / 1e6)} MB, and 25 MB is the most`
            : undefined);
        if (fault) {
          refused.push({ name: name.slice(0, 300), refusal: `Left out: ${fault}.` });
          return false;
        }
        bytes += originalSize;
        if (bytes > MAX_BYTES)
          throw new TooMuch("The archive unpacks to more than 200 MB; import it in portions.");
        return true;
      },
    });
    return [...Object.entries(files).map(([name, content]) => ({ name, content })), ...refused];
  } catch (error) {
    if (error instanceof TooMuch) throw invalid([{ path: "file", message: error.message }]);
    throw invalid([{ path: "file", message: "This is no zip archive that can be read; it may be damaged." }]);
  }
}

class TooMuch extends Error {}

function nameFault(name: string): string | undefined {
  if (name.startsWith("/") || name.startsWith("\\") || /^[a-z]:/i.test(name))
    return "its name is an absolute path";
  if (name.split(/[/\\]/).includes("..")) return "its name climbs out of the archive";
  // eslint-disable-next-line no-control-regex -- control characters are what it looks for
  return /[\u0000-\u001F\u007F]/.test(name) ? "its name holds control characters" : undefined;
}
