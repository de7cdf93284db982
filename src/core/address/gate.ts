import type { Address } from "./address.ts";
import { repairAddress } from "./repair/repair.ts";

/** What an address is to be: where a link leads, or where a picture comes from. */
export type AddressUse = "link" | "picture";

/**
 * The one gate in: an address as it may be stored, or undefined for one that may not. What is right already stays
 * as its author wrote it, what can be made right is repaired, all else (scripts, files of somebody's machine,
 * credentials, control characters) does not pass. A picture comes from the web or from a path of the site.
 */
export function admitted(written: unknown, use: AddressUse): Address | undefined {
  if (typeof written !== "string") return undefined;
  const repaired = repairAddress(written, { isExact: true });
  if (!repaired.ok) return undefined;
  if (use === "picture" && repaired.form !== "web" && repaired.form !== "path") return undefined;
  return repaired.repairs.length === 0 ? (written as Address) : repaired.address;
}
