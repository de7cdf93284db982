import { spelledPath } from "../address/path-key.ts";
import type { Placement } from "../pages/page.ts";
import { comparablePages, pageMatches } from "./resolve/match.ts";

/** True when a shared block stands on this page; a document that is no page carries what stands on all. */
export function appliesTo(
  placement: Pick<Placement, "shown" | "on">,
  page: { path: string; category: string } | undefined,
): boolean {
  if (placement.shown === "all") return true;
  if (!page) return false;
  return placement.shown === "categories"
    ? placement.on.includes(page.category)
    : comparablePages(placement.on).some((pattern) => pageMatches(pattern, spelledPath(page.path)));
}
