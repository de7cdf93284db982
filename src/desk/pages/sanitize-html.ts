import { generateJSON } from "@tiptap/html/server";
import sanitize from "sanitize-html";
import { admitBody, admittedAttribute, inWords, type LeftOut } from "../../core/pages/body/admit.ts";
import type { Body, WrittenBody } from "../../core/pages/body/body.ts";
import { bodyExtensions, BODY_ELEMENTS } from "../../core/pages/body/extensions.ts";

/** HTML that was taken in: as a body, and what was left out, in words. */
export interface SanitizedHtml {
  body: Body;
  dropped: string[];
}

const SILENT = new Set([
  "html",
  "head",
  "body",
  "title",
  "meta",
  "link",
  "div",
  "span",
  "section",
  "article",
  "main",
  "h1",
]);
// A picture alone in a paragraph is a picture beside paragraphs.
const PICTURE_PARAGRAPH = /<p>\s{0,20}((?:<a [^>]*>\s{0,20})?<img [^>]*>(?:\s{0,20}<\/a>)?)\s{0,20}<\/p>/g;
const WITH_CONTENT = [
  "script",
  "style",
  "textarea",
  "option",
  "noscript",
  "iframe",
  "object",
  "template",
  "title",
  "svg",
  "math",
];

// An option that the package knows and its types do not.
const KEPT_WHEN_EMPTY = { allowedEmptyAttributes: ["alt", "download"] } as object;

/**
 * Takes HTML from outside into a body. What a body cannot hold is sanitised away by sanitize-html; each kind
 * of thing that was left out is told once, with how often.
 */
export function sanitizeHtml(html: string): SanitizedHtml {
  const notes = new Map<string, number>();
  const note: LeftOut = (what) => void notes.set(what, (notes.get(what) ?? 0) + 1);

  const clean = sanitize(html, {
    allowedTags: Object.keys(BODY_ELEMENTS),
    allowedAttributes: Object.fromEntries(
      Object.entries(BODY_ELEMENTS).map(([name, attributes]) => [name, [...attributes]]),
    ),
    allowedSchemes: ["http", "https", "mailto", "tel"],
    nonTextTags: WITH_CONTENT,
    ...KEPT_WHEN_EMPTY,
    nestingLimit: 120,
    transformTags: {
      h1: "h2",
      h5: "h4",
      h6: "h4",
      "*": (tagName, attributes) => ({ tagName, attribs: keptAttributes(tagName, attributes, note) }),
    },
  });
  const written = generateJSON(clean.replace(PICTURE_PARAGRAPH, "$1"), bodyExtensions) as WrittenBody;
  const { body, dropped } = admitBody(written);
  return { body, dropped: [...inWords(notes), ...dropped] };
}

function keptAttributes(
  element: string,
  attributes: Record<string, string>,
  note: LeftOut,
): Record<string, string> {
  const allowed = BODY_ELEMENTS[element];
  if (!allowed) {
    if (!SILENT.has(element)) note(`the element <${element}>`);
    return {};
  }
  const kept: Record<string, string> = {};
  for (const [name, value] of Object.entries(attributes)) {
    if (!allowed.includes(name)) note(`the attribute ${name} on <${element}>`);
    else {
      const stored = admittedAttribute(element, name, value, note);
      if (stored !== undefined) kept[name] = stored;
    }
  }
  return kept;
}
