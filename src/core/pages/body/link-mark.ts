import { Mark, mergeAttributes } from "@tiptap/core";
import { admitted } from "../../address/gate.ts";

const ATTRIBUTES = ["href", "title", "rel", "target", "download"] as const;

/**
 * The mark that makes words a link. `rel` and `target` are what the author wrote in HTML, `override` is what
 * was set by hand against the rules; neither is ever changed by a rule. `creative` names the creative that it came from.
 */
export const LinkMark = Mark.create({
  name: "link",
  priority: 1000,
  inclusive: false,
  keepOnSplit: false,
  exitable: true,

  addAttributes() {
    const plain = Object.fromEntries(ATTRIBUTES.map((name) => [name, { default: null as string | null }]));
    return { ...plain, override: ownAttribute("override"), creative: ownAttribute("creative") };
  },

  // What would not be stored is not taken into the text either: its words come without the link.
  parseHTML: () => [
    {
      tag: "a[href]",
      getAttrs: (element) => (admitted(element.getAttribute("href"), "link") === undefined ? false : null),
    },
  ],
  renderHTML: ({ HTMLAttributes }) => ["a", mergeAttributes(HTMLAttributes), 0],
});

// Written as data-…: only the workspace reads it.
function ownAttribute(name: "override" | "creative") {
  return {
    default: null as string | null,
    parseHTML: (element: HTMLElement) => element.getAttribute(`data-${name}`),
    renderHTML: (attributes: Record<string, string | null | undefined>) =>
      attributes[name] ? { [`data-${name}`]: attributes[name] } : {},
  };
}
