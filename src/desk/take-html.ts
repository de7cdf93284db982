import { generateJSON } from "@tiptap/html/server";
import sanitizeHtml from "sanitize-html";
import { repairAddress } from "../core/address/repair.ts";
import type { Body } from "../core/body/body.ts";
import { bodyExtensions, BODY_ELEMENTS } from "../core/body/extensions.ts";
import { parseOverride } from "../core/rules/override.ts";

/** HTML that was taken in: as a body, and what was left out, in words. */
export interface TakenHtml {
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
const PICTURE_PARAGRAPH = /<p>\s*((?:<a [^>]*>)?\s*<img [^>]*>\s*(?:<\/a>)?)\s*<\/p>/g;
const HEADING_ID = /^[\p{L}\p{N}][\p{L}\p{M}\p{N}_-]{0,99}$/u;
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
export function takeHtml(html: string): TakenHtml {
  const notes = new Map<string, number>();
  const note = (what: string): void => void notes.set(what, (notes.get(what) ?? 0) + 1);

  const clean = sanitizeHtml(html, {
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
  const body = generateJSON(clean.replace(PICTURE_PARAGRAPH, "$1"), bodyExtensions) as Body;
  return {
    body,
    dropped: [...notes].map(([what, times]) => (times > 1 ? `${what} (${times} times)` : what)),
  };
}

function keptAttributes(
  element: string,
  attributes: Record<string, string>,
  note: (what: string) => void,
): Record<string, string> {
  const allowed = BODY_ELEMENTS[element];
  if (!allowed) {
    if (!SILENT.has(element)) note(`the element <${element}>`);
    return {};
  }
  const kept: Record<string, string> = {};
  for (const [name, value] of Object.entries(attributes)) {
    if (!allowed.includes(name)) note(`the attribute ${name} on <${element}>`);
    else if (name === "href" || name === "src") {
      const address = allowedAddress(name, value);
      if (address === undefined) note(`the address “${value.slice(0, 60)}” on <${element}>`);
      else kept[name] = address;
    } else if (name === "id" && !HEADING_ID.test(value)) {
      note(`the id “${value.slice(0, 60)}”`);
    } else if ((name === "width" || name === "height") && !/^\d{1,5}$/.test(value)) {
      note(`the attribute ${name} on <${element}>`);
    } else if (name === "data-override" && parseOverride(value).unknown.length > 0) {
      note(`the override “${value.slice(0, 60)}”, which says nothing known`);
    } else if (name === "data-creative" && !/^\d{1,18}$/.test(value)) {
      note(`the attribute ${name} on <${element}>`);
    } else kept[name] = value;
  }
  return kept;
}

// What can be made right is kept as the author wrote it when it is right already, else in its repaired form.
function allowedAddress(attribute: string, value: string): string | undefined {
  const repaired = repairAddress(value);
  if (!repaired.ok) return undefined;
  if (attribute === "src" && repaired.form !== "web" && repaired.form !== "path") return undefined;
  return repaired.repairs.length === 0 ? value : repaired.address;
}
