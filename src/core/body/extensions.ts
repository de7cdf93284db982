import type { Extensions } from "@tiptap/core";
import Image from "@tiptap/extension-image";
import StarterKit from "@tiptap/starter-kit";
import { LinkMark } from "./link-mark.ts";

/** What a body can hold; one list for the editor, the server and every format. */
export const bodyExtensions: Extensions = [
  StarterKit.configure({
    link: false,
    underline: false,
    heading: { levels: [2, 3, 4] },
    trailingNode: false,
  }),
  Image.configure({ allowBase64: false }),
  LinkMark,
];

/** The elements that a body can be written in, for the sanitiser: what is not here is dropped and told. */
export const BODY_ELEMENTS: Readonly<Record<string, readonly string[]>> = {
  p: [],
  h2: [],
  h3: [],
  h4: [],
  ul: [],
  ol: ["start"],
  li: [],
  blockquote: [],
  pre: [],
  code: ["class"],
  strong: [],
  b: [],
  em: [],
  i: [],
  s: [],
  del: [],
  hr: [],
  br: [],
  img: ["src", "alt", "title", "width", "height"],
  a: ["href", "title", "rel", "target", "data-override"],
};
