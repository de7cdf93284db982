import { compareKey } from "../address/compare.ts";
import { withHost, withParameter } from "../address/change-parts.ts";
import { repairAddress } from "../address/repair/repair.ts";
import type { LinkAction } from "./ledger.ts";
import { formatOverride, parseOverride, type Override } from "../rules/override.ts";

/** A link as a change of many looks at it. */
export interface ChangeableLink {
  /** As it is stored. */
  href: string;
  /** With its variables filled in. */
  address: string;
  override: string | null;
  /** Where its short link is, for `shorten`: made already, or to be made. */
  shortUrl?: string;
}

/** What becomes of a link: its new stored parts; nothing (undefined); or the reason why not. */
export type LinkChangeResult = { href: string; override: string | null } | string | undefined;

/** Applies one action to one link. */
export function changeLink(link: ChangeableLink, action: LinkAction): LinkChangeResult {
  const { href, override } = link;
  switch (action.do) {
    case "override": {
      const next = withSwitches(override, action.set);
      return next === normal(override) ? undefined : { href, override: next };
    }
    case "clear-overrides":
      return override === null ? undefined : { href, override: null };
    case "destination":
      return sameDestination(link, action.find) ? withAddress(link, action.replace) : undefined;
    case "host":
      return withAddress(link, withHost(link.address, action.find, action.replace));
    case "parameter":
      return withAddress(link, withParameter(link.address, action));
    case "program":
    case "creative":
    case "directory":
      // What becomes of these is not told by the link alone.
      return undefined;
    case "shorten":
      return link.shortUrl === undefined ? undefined : { href: link.shortUrl, override };
  }
}

/** What becomes of the destination of a route, by the same action; undefined when nothing does. */
export function changedDestination(destination: string, action: LinkAction): string | undefined {
  const link = { href: destination, address: destination, override: null };
  if (action.do !== "destination" && action.do !== "host" && action.do !== "parameter") return undefined;
  const changed = changeLink(link, action);
  return typeof changed === "object" ? changed.href : undefined;
}

function withSwitches(
  text: string | null,
  set: Extract<LinkAction, { do: "override" }>["set"],
): string | null {
  const override: Record<string, string | undefined> = { ...parseOverride(text ?? "").override };
  for (const [name, value] of Object.entries(set)) {
    if (value === "clear") delete override[name];
    else if (value !== undefined) override[name] = value;
  }
  return formatOverride(override as Override) ?? null;
}

function normal(text: string | null): string | null {
  return formatOverride(parseOverride(text ?? "").override) ?? null;
}

function sameDestination({ href, address }: ChangeableLink, find: string): boolean {
  return href === find || compareKey(address) === compareKey(find);
}

/** The link with another address, which is repaired and checked as if it were pasted; what it was is left when it is the same. */
export function withAddress(
  { href, address, override }: Pick<ChangeableLink, "href" | "address" | "override">,
  to: string,
): LinkChangeResult {
  if (to === address || to === href) return undefined;
  const repaired = repairAddress(to);
  if (!repaired.ok) return repaired.reason.message;
  return repaired.address === href ? undefined : { href: repaired.address, override };
}
