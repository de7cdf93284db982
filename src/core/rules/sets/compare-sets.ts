import type { Rule } from "../rule.ts";
import { ruleSentence } from "../sentence.ts";

/** One difference between two sets of rules. */
export interface SetDifference {
  change: "added" | "removed" | "changed" | "switched on" | "switched off" | "moved";
  name: string;
  /** The rule as a sentence, in the one set and in the other. */
  before?: string;
  after?: string;
}

/** What differs from one set to another, rules told by their names; in the order of the later set, then what is gone. */
export function compareSets(before: readonly Rule[], after: readonly Rule[]): SetDifference[] {
  const differences: SetDifference[] = [];
  const old = new Map(before.map((rule) => [rule.name, rule]));
  const stayed = new Set(after.map(({ name }) => name).filter((name) => old.has(name)));
  const moved = movedNames(
    before.filter(({ name }) => stayed.has(name)).map(({ name }) => name),
    after.filter(({ name }) => stayed.has(name)).map(({ name }) => name),
  );
  for (const rule of after) {
    const was = old.get(rule.name);
    const sentence = ruleSentence(rule);
    if (!was) {
      differences.push({ change: "added", name: rule.name, after: sentence });
      continue;
    }
    if (ruleSentence(was) !== sentence || !sameStatement(was, rule))
      differences.push({ change: "changed", name: rule.name, before: ruleSentence(was), after: sentence });
    if (was.enabled !== rule.enabled)
      differences.push({ change: rule.enabled ? "switched on" : "switched off", name: rule.name });
    if (moved.has(rule.name)) differences.push({ change: "moved", name: rule.name });
  }
  for (const rule of before)
    if (!stayed.has(rule.name))
      differences.push({ change: "removed", name: rule.name, before: ruleSentence(rule) });
  return differences;
}

function sameStatement(a: Rule, b: Rule): boolean {
  const statement = ({ match, except, set, mode }: Rule): string =>
    JSON.stringify([match, except ?? null, set, mode]);
  return statement(a) === statement(b);
}

// The fewest names that have to be moved to come from one order to the other: those beside the longest run that stays.
function movedNames(before: readonly string[], after: readonly string[]): Set<string> {
  const places = after.map((name) => before.indexOf(name));
  const lengths = places.map(() => 1);
  const previous = places.map(() => -1);
  for (let at = 0; at < places.length; at += 1)
    for (let earlier = 0; earlier < at; earlier += 1)
      if (places[earlier]! < places[at]! && lengths[earlier]! + 1 > lengths[at]!) {
        lengths[at] = lengths[earlier]! + 1;
        previous[at] = earlier;
      }
  const stays = new Set<string>();
  let at = lengths.indexOf(Math.max(...lengths, 0));
  for (; at >= 0; at = previous[at]!) stays.add(after[at]!);
  return new Set(after.filter((name) => !stays.has(name)));
}
