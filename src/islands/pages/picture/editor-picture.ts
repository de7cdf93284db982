import type { Extensions } from "@tiptap/core";
import { bodyExtensions } from "../../../core/pages/body/extensions.ts";
import { Picture } from "../../../core/pages/body/picture.ts";

/**
 * The body's extensions for an editor in the workspace, where a path of the site's own would mean the workspace:
 * pictures are shown from the site's host, and read back as the paths they are.
 */
export function editorExtensions(home: string): Extensions {
  const shown = new URL(home).origin;
  const InEditor = Picture.extend({
    renderHTML(props) {
      const node = props.node;
      const src = node.attrs.src as string;
      if (!src.startsWith("/")) return this.parent!(props);
      return this.parent!({
        ...props,
        node: node.type.create({ ...node.attrs, src: shown + src }, node.content),
      });
    },
    parseHTML() {
      return this.parent!()!.map((rule) => ({
        ...rule,
        getAttrs: (element: HTMLElement) => {
          const attributes = rule.getAttrs!(element as never);
          if (!attributes) return attributes;
          const { src } = attributes as { src?: string };
          return src?.startsWith(`${shown}/`) ? { ...attributes, src: src.slice(shown.length) } : attributes;
        },
      }));
    },
  });
  return bodyExtensions.map((extension) => (extension === Picture ? InEditor : extension));
}
