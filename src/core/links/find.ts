import { attributeOf, walkTags, type StartTag } from "./start-tags.ts";

/** One link in a document, as its source has it. */
export interface LinkInHtml {
  tag: StartTag;
  href: string;
  title: string | null;
  rel: string | null;
  target: string | null;
  override: string | null;
  /** Anchor text: the words inside, or the alternative text of the picture; white space folded. */
  words: string;
  anchor: "text" | "image";
  /** Address of the first picture inside; null for a link without one. */
  picture: string | null;
  /** True for a link that begins inside another one, which browsers take apart. */
  nested: boolean;
}

/** The attribute that carries an author's override (see API: `data-override`). */
export const OVERRIDE_ATTRIBUTE = "data-override";

/** True for start tags that are links: `a` and `area` with an address, SVG's `a` with `xlink:href` too. */
export function linkAddress(tag: StartTag): string | undefined {
  if (tag.name === "area") return attributeOf(tag, "href");
  return tag.name === "a" ? (attributeOf(tag, "href") ?? attributeOf(tag, "xlink:href")) : undefined;
}

/** All links of a document, in source order. A link that is never closed ends where the next one begins. */
export function findLinks(html: string): LinkInHtml[] {
  const links: LinkInHtml[] = [];
  let open: LinkInHtml | undefined;
  let words = "";
  const close = (): void => {
    if (open) open.words = words.replace(/\s+/g, " ").trim();
    open = undefined;
  };
  walkTags(html, {
    startTag(tag) {
      const href = linkAddress(tag);
      if (href !== undefined) {
        const nested = open !== undefined;
        close();
        const link: LinkInHtml = {
          tag,
          href,
          title: attributeOf(tag, "title") ?? null,
          rel: attributeOf(tag, "rel") ?? null,
          target: attributeOf(tag, "target") ?? null,
          override: attributeOf(tag, OVERRIDE_ATTRIBUTE) ?? null,
          words: tag.name === "area" ? (attributeOf(tag, "alt") ?? "") : "",
          anchor: tag.name === "area" ? "image" : "text",
          picture: null,
          nested,
        };
        links.push(link);
        words = "";
        if (tag.name === "a") open = link;
      } else if (tag.name === "img" && open) {
        open.anchor = "image";
        open.picture ??= attributeOf(tag, "src") ?? null;
        words += ` ${attributeOf(tag, "alt") ?? ""} `;
      } else if (open) words += tag.name === "br" ? " " : "";
    },
    endTag(name) {
      if (name === "a") close();
    },
    text(text) {
      if (open) words += text;
    },
  });
  close();
  return links;
}
