import { beginsAsOne } from "../../core/address/path-start.ts";
import type { LedgerPlace } from "../../core/ledger/ledger.ts";
import { isElsewhere } from "../../core/ledger/ledger.ts";
import type { OpenSite } from "../sites/open-site.ts";

/**
 * True for a document that readers get as it is written elsewhere: its links are what they are there, whatever rules ask,
 * until they come through us and are changed on the way.
 */
export function isAsWritten(site: Pick<OpenSite, "origin">, place: LedgerPlace, path: string): boolean {
  if (!isElsewhere(place)) return false;
  const { comes = "read", passes = "untouched", only = [] } = site.origin ?? {};
  if (comes !== "front" || passes !== "on") return true;
  return only.length > 0 && !(place === "read" && beginsAsOne(path, only));
}
