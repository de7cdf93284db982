import { MAX_LEVELS } from "./choices.ts";
import type { NavigationItem } from "./navigation.ts";

/** An entry of the tree as a list, with its level. */
export type FlatItem = NavigationItem & { level: number };

const DEEPEST = MAX_LEVELS - 1;

/** An entry and everything below it, as positions in the list. */
function branchOf(flat: readonly FlatItem[], at: number): number {
  let end = at + 1;
  while (end < flat.length && flat[end]!.level > flat[at]!.level) end += 1;
  return end;
}

/** Moves an entry with what is below it past its neighbour of the same level. */
export function moveBranch(flat: readonly FlatItem[], id: string, step: 1 | -1): readonly FlatItem[] {
  const at = flat.findIndex((item) => item.id === id);
  const end = branchOf(flat, at);
  const branch = flat.slice(at, end);
  const rest = [...flat.slice(0, at), ...flat.slice(end)];
  if (step === 1) {
    if (end >= flat.length || flat[end]!.level < branch[0]!.level) return flat;
    rest.splice(branchOf(flat, end) - branch.length, 0, ...branch);
    return rest;
  }
  let before = at - 1;
  while (before >= 0 && flat[before]!.level > branch[0]!.level) before -= 1;
  if (before < 0 || flat[before]!.level < branch[0]!.level) return flat;
  rest.splice(before, 0, ...branch);
  return rest;
}

/** Puts an entry with what is below it deeper or higher up, as far as what stands before it allows. */
export function shiftBranch(flat: readonly FlatItem[], id: string, steps: number): readonly FlatItem[] {
  const at = flat.findIndex((item) => item.id === id);
  const end = branchOf(flat, at);
  const highest = at === 0 ? 0 : Math.min(flat[at - 1]!.level + 1, DEEPEST);
  const level = Math.max(0, Math.min(highest, flat[at]!.level + steps));
  const by = level - flat[at]!.level;
  if (by === 0) return flat;
  return flat.map((item, index) =>
    index >= at && index < end ? { ...item, level: Math.min(DEEPEST, item.level + by) } : item,
  );
}

/** The entries in reading order, each with its level from 0: the tree as a list that can be dragged about. */
export function flattenNavigation<A extends string>(
  list: readonly NavigationItem<A>[],
  level = 0,
): (NavigationItem<A> & { level: number })[] {
  return list.flatMap((item) => [{ ...item, level }, ...flattenNavigation(item.children, level + 1)]);
}

/** The tree of such a list; a level too deep for what stands before it is lifted to the deepest that is allowed. */
export function treeNavigation<A extends string>(
  flat: readonly (NavigationItem<A> & { level: number })[],
): NavigationItem<A>[] {
  const root: NavigationItem<A>[] = [];
  const open: NavigationItem<A>[][] = [root];
  for (const { level, ...item } of flat) {
    const at = Math.min(level, open.length - 1, MAX_LEVELS - 1);
    const entry: NavigationItem<A> = { ...item, children: [] };
    open[at]!.push(entry);
    open.length = at + 1;
    open.push(entry.children);
  }
  return root;
}
