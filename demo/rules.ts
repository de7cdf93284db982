import { ruleSchema, type Rule } from "../src/core/rules/rule.ts";
import type { TreatmentDay } from "../src/store/ledger/ledger-days.ts";

export const DEMO_DISCLOSURE = {
  text: "Some links on this page pay us a little when you buy. They never decide what we write.",
  place: true,
};

/** The rules of Low Lantern, in their order. */
export const DEMO_RULES: Rule[] = [
  {
    name: "Outside links open in a new tab",
    match: { destination: "external" },
    set: { target: "new" },
    mode: "fill",
  },
  {
    name: "Network links are paid",
    match: { networks: ["Saltmarsh Partners", "Gannet Row"] },
    set: { sponsored: "on", nofollow: "on" },
    mode: "overwrite",
  },
  {
    name: "Inside links stay in the tab",
    match: { destination: "internal" },
    set: { target: "same" },
    mode: "fill",
  },
  {
    name: "Linked pictures vouch for nothing",
    match: { destination: "external", anchor: "image" },
    set: { nofollow: "on" },
    mode: "fill",
  },
  {
    name: "Calendar pages say what leads away",
    match: { destination: "external", categories: ["The calendar"] },
    except: { anchor: "image" },
    set: { external: "on" },
    mode: "fill",
  },
].map((rule) => ruleSchema.parse(rule));

const DAY_MS = 86_400_000;
const DAYS = 60;
const MARKED_SINCE = 25;

/** How outside links were treated on the days before: paid ones were marked only since the network rule came. */
export function demoTreatments(now: number): TreatmentDay[] {
  return Array.from({ length: DAYS }, (_, index) => {
    const before = DAYS - index;
    const day = new Date(now - before * DAY_MS).toISOString().slice(0, 10);
    const paid = 26 + Math.floor(index / 4);
    const plain = 4 + Math.floor(index / 12);
    const isMarked = before <= MARKED_SINCE;
    return {
      day,
      sponsored: isMarked ? paid : Math.floor(paid / 4),
      ugc: before <= 40 ? 1 : 0,
      nofollow: isMarked ? 0 : 3,
      plain: isMarked ? plain : plain + paid - Math.floor(paid / 4),
    };
  });
}
