import type { Address } from "../../../core/address/address.ts";
import { destination as destinationSchema } from "../../../core/ground/fields.ts";
import type { Bulk } from "../../../contract/routes/bulk.ts";
import type { ChangingRoute } from "../../../store/routes/lists.ts";

const MAX_ALIASES = 100;

/** What becomes of one of many routes. */
export interface Change {
  row: ChangingRoute;
  tags: string[];
  enabled: boolean;
  destination: Address | null;
  address: string;
  aliases: string[];
  noindex: boolean;
  nofollow: boolean;
  deleted: boolean;
}

/** Why a route that was meant stays as it is. */
export const WHY_LEFT: Readonly<Record<Bulk["action"]["do"], string>> = {
  tag: "It has this tag already.",
  untag: "It does not have this tag.",
  switch: "It is switched so already.",
  delete: "It is deleted already.",
  robots: "It says so already.",
  retarget: "Its destination does not hold that text.",
  mend: "It leads there already.",
  move: "It stands there already.",
};

/** What becomes of one route: nothing (undefined), a change, or the reason why not. */
export function changeOf(row: ChangingRoute, action: Bulk["action"]): Change | string | undefined {
  const same: Change = {
    row,
    tags: row.tags,
    enabled: row.enabled,
    destination: row.destination,
    address: row.address,
    aliases: row.aliases,
    noindex: row.noindex,
    nofollow: row.nofollow,
    deleted: false,
  };
  switch (action.do) {
    case "tag":
      if (row.tags.includes(action.tag)) return undefined;
      return row.tags.length >= 50 ? "It has 50 tags already." : { ...same, tags: [...row.tags, action.tag] };
    case "untag":
      return row.tags.includes(action.tag)
        ? { ...same, tags: row.tags.filter((one) => one !== action.tag) }
        : undefined;
    case "switch":
      return row.enabled === action.on ? undefined : { ...same, enabled: action.on };
    case "delete":
      return { ...same, deleted: true };
    case "robots": {
      const { noindex = row.noindex, nofollow = row.nofollow } = action;
      return noindex === row.noindex && nofollow === row.nofollow
        ? undefined
        : { ...same, noindex, nofollow };
    }
    case "retarget": {
      if (!row.destination?.includes(action.find)) return undefined;
      return withDestination(same, row.destination.replaceAll(action.find, action.replace));
    }
    case "mend": {
      if (action.delete?.includes(row.id)) return { ...same, deleted: true };
      const to = action.destinations?.[row.id];
      return to === undefined || to === row.destination ? undefined : withDestination(same, to);
    }
    case "move": {
      const to = action.addresses[row.id];
      if (to === undefined || to === row.address) return undefined;
      if (row.match !== "exact") return "It has no single address that could move.";
      const kept = action.keepOld ? [...row.aliases, row.address] : row.aliases;
      const aliases = [...new Set(kept)].filter((one) => one !== to);
      return aliases.length > MAX_ALIASES
        ? `It has ${MAX_ALIASES} other addresses already.`
        : { ...same, address: to, aliases };
    }
  }
}

function withDestination(change: Change, to: string): Change | string | undefined {
  const checked = destinationSchema.safeParse(to);
  if (!checked.success) return checked.error.issues[0]!.message;
  return checked.data === change.row.destination ? undefined : { ...change, destination: checked.data };
}

/** A change in words, before and after. */
export function shown(
  { row, tags, enabled, destination, address, noindex, nofollow, deleted }: Change,
  action: string,
): { before: string; after: string } {
  if (deleted) return { before: row.destination ?? "gone", after: "deleted" };
  if (action === "tag" || action === "untag") return { before: row.tags.join(", "), after: tags.join(", ") };
  if (action === "move") return { before: row.address, after: address };
  if (action === "robots") return { before: robotsSaid(row), after: robotsSaid({ noindex, nofollow }) };
  if (action === "switch") return { before: row.enabled ? "on" : "off", after: enabled ? "on" : "off" };
  return { before: row.destination ?? "", after: destination ?? "" };
}

function robotsSaid({ noindex, nofollow }: { noindex: boolean; nofollow: boolean }): string {
  return [noindex ? "noindex" : "", nofollow ? "nofollow" : ""].filter(Boolean).join(", ") || "nothing";
}
