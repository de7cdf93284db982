import { Extension, type Extensions } from "@tiptap/core";
import { Blockquote } from "@tiptap/extension-blockquote";
import { Bold } from "@tiptap/extension-bold";
import { Code } from "@tiptap/extension-code";
import { CodeBlock } from "@tiptap/extension-code-block";
import { Document } from "@tiptap/extension-document";
import { HardBreak } from "@tiptap/extension-hard-break";
import { Heading } from "@tiptap/extension-heading";
import { HorizontalRule } from "@tiptap/extension-horizontal-rule";
import { Italic } from "@tiptap/extension-italic";
import { BulletList, ListItem, ListKeymap, OrderedList } from "@tiptap/extension-list";
import { Paragraph } from "@tiptap/extension-paragraph";
import { Strike } from "@tiptap/extension-strike";
import { Text } from "@tiptap/extension-text";
import { Dropcursor, Gapcursor, UndoRedo } from "@tiptap/extensions";
import { LinkMark } from "./link-mark.ts";
import { Picture } from "./picture.ts";

/** A heading may carry an id of its own; one without gets its words as id when it is delivered. */
const HeadingId = Extension.create({
  name: "headingId",
  addGlobalAttributes: () => [{ types: ["heading"], attributes: { id: { default: null } } }],
});

/** What a body can hold; one list for the editor, the server and every format. */
export const bodyExtensions: Extensions = [
  Bold,
  Blockquote,
  BulletList,
  Code,
  CodeBlock,
  Document,
  Dropcursor,
  Gapcursor,
  HardBreak,
  Heading.configure({ levels: [2, 3, 4] }),
  UndoRedo,
  HorizontalRule,
  Italic,
  ListItem,
  ListKeymap,
  OrderedList,
  Paragraph,
  Strike,
  Text,
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
