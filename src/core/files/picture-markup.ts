import { escapeAttribute } from "entities/escape";
import { walkTags, type StartTag } from "../links/start-tags.ts";
import type { ShownPicture } from "./picture.ts";

/** How wide a text is where there is room: `max-width` of a page's content. */
const COLUMN = "43.5rem";
const IMAGES: ReadonlySet<string> = new Set(["img"]);
/** The types of forms that a browser chooses among, the smallest files first. */
const CHOSEN = ["image/avif", "image/webp"];

/**
 * Lets a browser choose among the forms of each picture, tells how large it is so that nothing moves when it comes, and has
 * it fetched when it comes near: all but the first of a page (HTML Standard, sections 4.8.1 and 4.8.4). A picture that is
 * none of ours keeps all it has; what an author set stays. `isBelow` for what stands behind the text, however many it has.
 */
export function withPictureForms(
  html: string,
  pictureOf: (src: string) => ShownPicture | undefined,
  isBelow = false,
): string {
  if (!html.includes("<img")) return html;
  const pieces: string[] = [];
  let from = 0;
  let isFirst = !isBelow;
  walkTags(
    html,
    {
      startTag(tag) {
        const src = tag.value("src");
        if (src === undefined) return;
        const picture = pictureOf(src);
        pieces.push(html.slice(from, tag.start), markup(tag, picture, isFirst));
        from = tag.end;
        isFirst = false;
      },
    },
    IMAGES,
  );
  return pieces.join("") + html.slice(from);
}

function markup(tag: StartTag, picture: ShownPicture | undefined, isFirst: boolean): string {
  const more: [name: string, value: string][] = [];
  const width = Number(tag.value("width") ?? Number.NaN);
  if (picture && tag.value("height") === undefined) {
    const shown = width > 0 ? width : picture.width;
    if (tag.value("width") === undefined) more.push(["width", String(shown)]);
    more.push(["height", String(Math.max(1, Math.round((shown * picture.height) / picture.width)))]);
  }
  if (!isFirst && tag.value("loading") === undefined) more.push(["loading", "lazy"]);
  const image = withAttributes(tag, more);
  const sources = picture ? sourcesOf(picture, width) : "";
  return sources === "" ? image : `<picture>${sources}${image}</picture>`;
}

function sourcesOf({ base, forms, width }: ShownPicture, own: number): string {
  const shown = own > 0 ? own : width;
  const sizes = `(min-width: 46rem) min(${COLUMN}, ${shown}px), 100vw`;
  return CHOSEN.map((type) => {
    const set = forms
      .filter((form) => form.type === type)
      .map((form) => `${base}${form.name} ${form.width}w`)
      .join(", ");
    return set && `<source type="${type}" srcset="${escapeAttribute(set)}" sizes="${sizes}">`;
  }).join("");
}

function withAttributes({ text, selfClosing }: StartTag, more: readonly [string, string][]): string {
  if (more.length === 0) return text;
  const end = selfClosing ? text.lastIndexOf("/") : text.length - 1;
  const added = more.map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`).join("");
  return text.slice(0, end).trimEnd() + added + (selfClosing ? " " : "") + text.slice(end);
}
