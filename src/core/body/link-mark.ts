import { Mark, mergeAttributes } from "@tiptap/core";

const ATTRIBUTES = ["href", "title", "rel", "target", "download"] as const;

/**
 * The mark that makes words a link. `rel` and `target` are what the author wrote in HTML, `override` is what
 * was set by hand against the rules; neither is ever changed by a rule.
 */
export const LinkMark = Mark.create({
  name: "link",
  priority: 1000,
  inclusive: false,
  keepOnSplit: false,
  exitable: true,

  addAttributes() {
    const plain = Object.fromEntries(ATTRIBUTES.map((name) => [name, { default: null as string | null }]));
    return {
      ...plain,
      override: {
        default: null as string | null,
        parseHTML: (element: HTMLElement) => element.getAttribute("data-override"),
        renderHTML: (attributes: { override?: string | null }) =>
          attributes.override ? { "data-override": attributes.override } : {},
      },
    };
  },

  parseHTML: () => [{ tag: "a[href]" }],
  renderHTML: ({ HTMLAttributes }) => ["a", mergeAttributes(HTMLAttributes), 0],
});
