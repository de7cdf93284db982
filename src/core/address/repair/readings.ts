import { withoutEnds } from "../../text/cut.ts";
import { FILES_PREFIX } from "../../files/files-prefix.ts";

/** What else a pasted text may mean as well as what was taken: two readings are good, and a person knows which. */
const ABBREVIATION =
  /(?:^|[/_\-.\s])(?:Inc|Ltd|Co|Corp|Bros|Jr|Sr|St|Dr|Mr|Mrs|Ms|No|vs|etc|[A-Z](?:\.[A-Z])*)\.$/;
/** Endings that are domains of the root and files alike. */
const FILE_OR_HOST = /^[\p{L}\p{N}][\p{L}\p{M}\p{N}_-]*\.(?:zip|mov|md|rs|sh|pl|py|ps|so|cab|app)$/iu;
const SCHEME_THERE = /https?:\/\/[^\s<>"]+/gi;

/** Two or more whole addresses with nothing but space or signs between them; empty for all other texts. */
export function severalAddresses(text: string): string[] {
  if (!/\s/.test(text.trim())) return [];
  const found = text.match(SCHEME_THERE) ?? [];
  const between = text.replace(SCHEME_THERE, "");
  return found.length > 1 && /^[\s,;|]*$/.test(between) ? found.map((one) => withoutEnds(one, ",;|")) : [];
}

/** Other good readings of a text that became this address, as they would be typed. */
export function otherReadings(text: string, address: string): string[] {
  const typed = text.trim();
  const end = typed.at(-1) ?? "";
  const path = typed.replace(/^https?:\/\/[^/?#]*/i, "");
  const isTaken = !address.endsWith(end);
  if (isTaken && path.length > 1 && (end === "!" || (end === "." && ABBREVIATION.test(path))))
    return [`<${typed}>`];
  if (FILE_OR_HOST.test(typed)) return [`/${typed}`, `${FILES_PREFIX}${typed}`];
  if (address === `/${typed}` && /\.[a-z]{2,5}$/i.test(typed)) return [`${FILES_PREFIX}${typed}`];
  return [];
}
