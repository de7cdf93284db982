import type { Decision } from "./resolve/resolve.ts";

/** What to change to get another answer than this decision's, said to the person who looks at the link. */
export function otherAnswer({ attribute, value, decider }: Decision): string {
  const opposite = attribute === "target" ? "another tab" : value === "on" ? `no ${attribute}` : attribute;
  switch (decider.kind) {
    case "override":
      return "Leave it to the rules, on the link itself.";
    case "rule":
      return `For ${opposite} here, set it on the link by hand; everywhere, change “${decider.name}”, or make an exception in it.`;
    case "author":
      return `The author wrote it: for ${opposite}, set it on the link by hand, or let a rule replace what authors set.`;
    case "implied":
      return "Follows from the new tab: open it in the same tab, or turn noopener off on the link by hand.";
  }
}
