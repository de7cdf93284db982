import { decodeHTML } from "entities/decode";
import { escapeAttribute, escapeText } from "entities/escape";
import { walkTags, type StartTag } from "../../links/start-tags.ts";
import type { PageMeta } from "./front-matter.ts";

const SEARCH_TEXTS = ["title", "canonical", "picture", "language"] as const;

/** Writes a page as an HTML document of its own, its metadata in the head. */
export function writeHtmlFile(meta: PageMeta, html: string): string {
  const entries: readonly (readonly [name: string, value: string | undefined])[] = [
    ["description", meta.description],
    ["maprope:path", meta.path],
    ["maprope:category", meta.category],
    ["maprope:navigation", meta.inNavigation ? "yes" : undefined],
    ["robots", meta.search?.noindex ? "noindex" : undefined],
    ...SEARCH_TEXTS.map((name) => [`maprope:search-${name}`, meta.search?.[name]] as const),
  ];
  const metas = entries
    .filter(([, value]) => value)
    .map(([name, value]) => `<meta name="${name}" content="${escapeAttribute(value!)}">\n`)
    .join("");
  const title = escapeText(meta.title ?? "");
  return `<!doctype html>\n<html>\n<head>\n<meta charset="utf-8">\n<title>${title}</title>\n${metas}</head>\n<body>\n${html}\n</body>\n</html>\n`;
}

/** Reads an HTML document or fragment: its metadata, and what is to become the page's text. */
export function readHtmlFile(text: string): { meta: PageMeta; html: string } {
  const meta: PageMeta = {};
  let title: string | undefined;
  let inTitle = false;
  let from = 0;
  let to = text.length;
  let heading: { from: number; words: string; to: number | undefined } | undefined;
  walkTags(text, {
    startTag(tag) {
      if (tag.name === "title" && title === undefined) inTitle = true;
      else if (tag.name === "body" && from === 0) from = tag.end;
      else if (tag.name === "h1") heading ??= { from: tag.start, words: "", to: undefined };
      else if (tag.name === "meta") takeMeta(meta, tag);
    },
    endTag(name, start) {
      if (name === "title") inTitle = false;
      if (name === "body") to = start - "</".length;
      if (name === "h1" && heading && heading.to === undefined) heading.to = text.indexOf(">", start) + 1;
    },
    text(words) {
      if (inTitle) title = (title ?? "") + words;
      if (heading && heading.to === undefined) heading.words += words;
    },
  });
  // A heading of the first level ahead of everything is the page's title, which stands above the text already.
  if (heading?.to !== undefined && heading.from >= from && text.slice(from, heading.from).trim() === "") {
    title ??= heading.words;
    from = heading.to;
  }
  if (title !== undefined) meta.title = decodeHTML(title).replace(/\s+/g, " ").trim();
  return { meta, html: text.slice(from, to).trim() };
}

function takeMeta(meta: PageMeta, tag: StartTag): void {
  const content = tag.value("content") ?? "";
  const name = tag.value("name")?.toLowerCase();
  const text = SEARCH_TEXTS.find((one) => name === `maprope:search-${one}`);
  if (text) meta.search = { ...meta.search, [text]: content };
  switch (name) {
    case "robots":
      if (/\bno(?:index|ne)\b/i.test(content)) meta.search = { ...meta.search, noindex: true };
      break;
    case "description":
      meta.description = content;
      break;
    case "maprope:path":
      meta.path = content;
      break;
    case "maprope:category":
      meta.category = content;
      break;
    case "maprope:navigation":
      meta.inNavigation = content === "yes";
      break;
  }
}
