import { Extension, type Extensions } from "@tiptap/core";
import StarterKit from "@tiptap/starter-kit";
import { LinkMark } from "./link-mark.ts";
import { Picture } from "./picture.ts";

/** A heading may carry an id of its own; one without gets its words as id when it is delivered. */
const HeadingId = Extension.create({
  name: "headingId",
  addGlobalAttributes: () => [{ types: ["heading"], attributes: { id: { default: null } } }],
});

/** What a body can hold; one list for the editor, the server and every format. */
export const bodyExtensions: Extensions = [
  StarterKit.configure({
    link: false,
    underline: false,
    heading: { levels: [2, 3, 4] },
    trailingNode: false,
  }),
  HeadingId,
  Picture,
  LinkMark,
];

/** The elements that a body can be written in, for the sanitiser: what is not here is dropped and told. */
export const BODY_ELEMENTS: Readonly<Record<string, readonly string[]>> = {
  p: [],
  h2: ["id"],
  h3: ["id"],
  h4: ["id"],
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
  figure: ["data-width", "data-align"],
  figcaption: [],
  img: ["src", "alt", "title", "width", "height"],
  a: ["href", "title", "rel", "target", "download", "data-override", "data-creative"],
};
