import { escapeAttribute, escapeText } from "entities/escape";
import { Parser } from "htmlparser2";

/** Which part of its page a block stands in, by the landmark around it (ARIA in HTML, section 4). */
export type Area = "menu" | "head" | "foot" | "side" | "text";

/** One block of a page: a paragraph, a heading, an entry of a list, a cell. */
export interface PageBlock {
  area: Area;
  /** Its words and links alone, as HTML of one element. */
  html: string;
}

/** What a page says about itself, and what stands in it. */
export interface ReducedPage {
  title: string;
  description: string;
  language: string;
  /** The address that it calls its own (RFC 6596), resolved; null where it says nothing. */
  canonical: string | null;
  noindex: boolean;
  nofollow: boolean;
  /** Where a `refresh` sends its reader at once; null where none does. */
  refresh: string | null;
  /** Addresses that its links lead to, resolved, each once, with whether it asks not to be followed. */
  links: { address: string; nofollow: boolean }[];
  /** Feeds that it names. */
  feeds: string[];
  blocks: PageBlock[];
  words: number;
  /** Its words come by scripts: there is next to nothing to be read in it as it is sent. */
  isMadeByScripts: boolean;
  /** It was longer than what is kept. */
  isCut: boolean;
}

/** Characters of a page's blocks that are kept. */
const MOST_KEPT = 400_000;
const MOST_BLOCKS = 20_000;
/** Fewer words than this, with scripts and hardly a link, are no text but the place for one. */
const FEW_WORDS = 20;

const BLOCKS = new Set(
  (
    "address article aside blockquote body caption center dd details dialog div dl dt fieldset figcaption figure footer form h1 h2 " +
    "h3 h4 h5 h6 header hr li main menu nav ol p pre search section summary table tbody td tfoot th thead tr ul"
  ).split(" "),
);
// A link that nobody closed ends with its cell (HTML section 13.2.6.4.15, “clear the list of active formatting elements”).
const CELLS = new Set(["td", "th", "caption"]);
const UNREAD = new Set(
  "script style template noscript svg math iframe select textarea object canvas audio video button".split(
    " ",
  ),
);
const KEPT_AS: Readonly<Record<string, string>> = {
  li: "li",
  h1: "h2",
  h2: "h2",
  h3: "h3",
  h4: "h4",
  h5: "h5",
  h6: "h6",
  td: "td",
  th: "td",
};
const AREA_OF: Readonly<Record<string, Area>> = {
  nav: "menu",
  aside: "side",
  main: "text",
  article: "text",
  footer: "foot",
  header: "head",
};
const AREA_OF_ROLE: Readonly<Record<string, Area>> = {
  navigation: "menu",
  menu: "menu",
  menubar: "menu",
  complementary: "side",
  main: "text",
  article: "text",
  contentinfo: "foot",
  banner: "head",
};
// A header or footer within an article is the article's own (HTML section 4.3.8).
const WITHIN_TEXT = new Set<Area>(["head", "foot"]);

interface OpenElement {
  name: string;
  area: Area;
}

/**
 * Reads a page down to what links are judged by: the words and links of its blocks, in order, and what it says of itself.
 * Relative addresses are resolved as a browser does, against the page's `base` or its own address; those of its own origin
 * are kept from their path on. Whatever is written, it ends: unclosed and misplaced elements are read as they come.
 */
export function reducePage(html: string, address: string): ReducedPage {
  const page: ReducedPage = {
    title: "",
    description: "",
    language: "",
    canonical: null,
    noindex: false,
    nofollow: false,
    refresh: null,
    links: [],
    feeds: [],
    blocks: [],
    words: 0,
    isMadeByScripts: false,
    isCut: false,
  };
  const own = new URL(address);
  let base = own;
  const known = new Map<string, { address: string; nofollow: boolean }>();
  const open: OpenElement[] = [];
  let inline = "";
  let hasWords = false;
  let kept = 0;
  let scripts = 0;
  let unread = 0;
  let title: string | undefined;
  let isInLink = false;

  const area = (): Area => open.at(-1)?.area ?? "text";
  function endBlock(): void {
    if (isInLink) return void (inline += " ");
    const text = inline.replace(/\s+/g, " ").trim();
    inline = "";
    const isKept = hasWords || text.includes("<a ");
    hasWords = false;
    if (!isKept) return;
    if (page.blocks.length >= MOST_BLOCKS || kept > MOST_KEPT) return void (page.isCut = true);
    const name =
      KEPT_AS[open.findLast(({ name }) => KEPT_AS[name] !== undefined || BLOCKS.has(name))?.name ?? ""] ??
      "p";
    const block = `<${name}>${text}</${name}>`;
    kept += block.length;
    page.blocks.push({ area: area(), html: block });
  }
  function endLink(): void {
    if (isInLink) inline += "</a>";
    isInLink = false;
  }
  function resolved(href: string): URL | undefined {
    const written = href.trim();
    return URL.canParse(written, base) ? new URL(written, base) : undefined;
  }
  function takeLink(href: string, rel: string): string {
    const url = resolved(href);
    if (!url) return href;
    if (url.protocol === "http:" || url.protocol === "https:") {
      const nofollow = /(?:^|\s)nofollow(?:\s|$)/i.test(rel);
      const { href: whole } = withoutHash(url);
      const there = known.get(whole);
      if (there) there.nofollow &&= nofollow;
      else {
        const link = { address: whole, nofollow };
        known.set(whole, link);
        page.links.push(link);
      }
    }
    return url.origin === own.origin && url.protocol !== "mailto:"
      ? `${url.pathname}${url.search}${url.hash}`
      : url.href;
  }

  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (unread > 0 && UNREAD.has(name)) return void (unread += 1);
        if (name === "script") scripts += 1;
        if (UNREAD.has(name)) return void (unread += 1);
        if (unread > 0) return;
        takeHead(name, attributes);
        if (BLOCKS.has(name)) {
          if (CELLS.has(name)) endLink();
          endBlock();
          open.push({ name, area: areaOf(name, attributes.role, area(), open) });
        } else if (inline.length > MOST_KEPT) page.isCut = true;
        else if (name === "br") inline += " ";
        else if (name === "a" && attributes.href !== undefined) {
          endLink();
          isInLink = true;
          inline += `<a href="${escapeAttribute(takeLink(attributes.href, attributes.rel ?? ""))}"${saidBy(attributes)}>`;
        } else if (name === "area" && attributes.href !== undefined)
          inline += `<a href="${escapeAttribute(takeLink(attributes.href, attributes.rel ?? ""))}"${saidBy(attributes)}>${escapeText(attributes.alt ?? "")}</a>`;
        else if (name === "img" && isInLink)
          inline += `<img src="${escapeAttribute(resolved(attributes.src ?? "")?.href ?? "")}" alt="${escapeAttribute(attributes.alt ?? "")}">`;
      },
      ontext(text) {
        if (unread > 0) return;
        if (title !== undefined) return void (title += text);
        if (open.length === 0 && inHead(text)) return;
        if (inline.length > MOST_KEPT) return void (page.isCut = true);
        inline += escapeText(text);
        if (!hasWords && /[\p{L}\p{N}]/u.test(text)) hasWords = true;
        page.words += (text.match(/[\p{L}\p{N}][\p{L}\p{M}\p{N}’'-]*/gu) ?? []).length;
      },
      onclosetag(name) {
        if (UNREAD.has(name)) return void (unread = Math.max(0, unread - 1));
        if (unread > 0) return;
        if (name === "title" && title !== undefined) {
          page.title ||= title.replace(/\s+/g, " ").trim().slice(0, 300);
          title = undefined;
        } else if (name === "a") endLink();
        else if (BLOCKS.has(name)) {
          if (CELLS.has(name)) endLink();
          endBlock();
          const at = open.findLastIndex((element) => element.name === name);
          if (at !== -1) open.length = at;
        }
      },
    },
    { decodeEntities: true, lowerCaseTags: true, lowerCaseAttributeNames: true },
  );

  function inHead(text: string): boolean {
    return text.trim() === "";
  }
  function takeHead(name: string, attributes: Record<string, string>): void {
    if (name === "html")
      page.language ||= (attributes.lang ?? attributes["xml:lang"] ?? "").trim().slice(0, 35);
    else if (name === "title" && page.title === "" && open.length === 0) title = "";
    else if (name === "base" && attributes.href !== undefined && base === own)
      base = URL.canParse(attributes.href.trim(), own) ? new URL(attributes.href.trim(), own) : own;
    else if (name === "meta") takeMeta(attributes);
    else if (name === "link" && attributes.href !== undefined) {
      const rel = (attributes.rel ?? "").toLowerCase().split(/\s+/);
      const url = resolved(attributes.href);
      if (!url || !/^https?:$/.test(url.protocol)) return;
      if (rel.includes("canonical")) page.canonical ??= withoutHash(url).href;
      else if (rel.includes("alternate") && /^application\/(?:rss|atom)\+xml/i.test(attributes.type ?? ""))
        page.feeds.push(url.href);
    }
  }
  function takeMeta({
    name = "",
    content = "",
    "http-equiv": equivalent = "",
  }: Record<string, string>): void {
    const says = content.toLowerCase();
    if (/^(?:robots|maprope)$/i.test(name)) {
      page.noindex ||= /\b(?:noindex|none)\b/.test(says);
      page.nofollow ||= /\b(?:nofollow|none)\b/.test(says);
    } else if (/^description$/i.test(name))
      page.description ||= content.replace(/\s+/g, " ").trim().slice(0, 500);
    else if (/^refresh$/i.test(equivalent)) {
      const [, seconds, to] =
        /^\s*(\d{1,6})[\s;,]{1,9}(?:url\s{0,9}=\s{0,9})?["']?([^"']{1,2048})/i.exec(content) ?? [];
      const url = to === undefined ? undefined : resolved(to);
      if (url && Number(seconds) <= 5 && withoutHash(url).href !== withoutHash(own).href)
        page.refresh ??= withoutHash(url).href;
    }
  }

  parser.write(html);
  parser.end();
  endLink();
  endBlock();
  page.isMadeByScripts = page.words < FEW_WORDS && scripts > 0 && page.links.length < 3;
  return page;
}

function withoutHash(url: URL): URL {
  const copy = new URL(url);
  copy.hash = "";
  return copy;
}

// What else a link says of itself that rules look at.
function saidBy({ rel, target, title }: Record<string, string>): string {
  const said = { rel, target, title };
  return Object.entries(said)
    .map(([name, value]) => (value === undefined ? "" : ` ${name}="${escapeAttribute(value)}"`))
    .join("");
}

function areaOf(name: string, role: string | undefined, around: Area, open: readonly OpenElement[]): Area {
  const said = AREA_OF_ROLE[(role ?? "").trim().toLowerCase()] ?? AREA_OF[name];
  if (said === undefined) return around;
  const isOfText = open.some((element) => element.name === "article" || element.name === "main");
  return isOfText && WITHIN_TEXT.has(said) ? around : said;
}
