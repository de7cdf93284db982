import { SaxesParser } from "saxes";

/** One address that a machine-readable document names, and when it says that it last changed (ISO 8601). */
export interface NamedAddress {
  address: string;
  changed: string | null;
}

/** What a document for machines turned out to be: a list of pages, a list of further lists, or neither. */
export type NamedAddresses =
  | { kind: "pages" | "index"; addresses: NamedAddress[]; isCut: boolean }
  | { kind: "unreadable"; reason: string };

/** As many as one sitemap may hold (sitemaps.org protocol, “Sitemap index files”). */
export const MOST_ADDRESSES = 50_000;

/** Elements that carry an address, by the element that they stand in. */
const ADDRESS_IN: Readonly<Record<string, string>> = {
  url: "loc",
  sitemap: "loc",
  item: "link",
  entry: "link",
};
const CHANGED = new Set(["lastmod", "pubDate", "updated", "dc:date"]);

/**
 * Reads a sitemap, a sitemap index (sitemaps.org protocol 0.9), a feed (RSS 2.0, RFC 4287) or a plain list of addresses, one
 * a line. What comes before a fault counts; a document with nothing in it is unreadable, with the reason.
 */
export function readNamedAddresses(text: string): NamedAddresses {
  const start = text.trimStart();
  return start.startsWith("<") ? readXml(start) : readLines(text);
}

function readLines(text: string): NamedAddresses {
  const lines = text
    .split(/\r\n?|\n/)
    .map((line) => line.trim())
    .filter((line) => line !== "" && !line.startsWith("#"));
  const addresses = lines.filter((line) => /^https?:\/\/\S+$/i.test(line));
  if (addresses.length === 0 || addresses.length < lines.length / 2)
    return { kind: "unreadable", reason: "is no list of addresses" };
  return {
    kind: "pages",
    addresses: addresses.slice(0, MOST_ADDRESSES).map((address) => ({ address, changed: null })),
    isCut: addresses.length > MOST_ADDRESSES,
  };
}

function readXml(text: string): NamedAddresses {
  const addresses: NamedAddress[] = [];
  let root = "";
  let within = "";
  let words = "";
  let address = "";
  let changed: string | null = null;
  let isCut = false;
  let fault = "";
  const parser = new SaxesParser({ xmlns: false });
  parser.on("error", (error) => {
    // Throwing is the only way to make it stop.
    fault = error.message;
    throw new Fault();
  });
  parser.on("opentag", ({ name, attributes }) => {
    root ||= name;
    words = "";
    if (ADDRESS_IN[name]) [within, address, changed] = [name, "", null];
    // Atom names addresses in an attribute; the first that is no other form of the entry is its page (RFC 4287 section 4.2.7).
    else if (
      name === "link" &&
      within === "entry" &&
      address === "" &&
      (attributes.rel ?? "alternate") === "alternate"
    )
      address = attributes.href ?? "";
  });
  parser.on("text", (piece) => (words += piece));
  parser.on("cdata", (piece) => (words += piece));
  parser.on("closetag", ({ name }) => {
    const told = words.trim();
    words = "";
    if (within !== "" && name === ADDRESS_IN[within] && told !== "") address = told;
    else if (within !== "" && CHANGED.has(name)) changed = momentOf(told);
    else if (name === within) {
      within = "";
      if (!/^https?:/i.test(address)) return;
      if (addresses.length < MOST_ADDRESSES) addresses.push({ address, changed });
      else isCut = true;
    }
  });
  try {
    parser.write(text).close();
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
  }
  if (addresses.length > 0) return { kind: root === "sitemapindex" ? "index" : "pages", addresses, isCut };
  if (fault !== "") return { kind: "unreadable", reason: "is not well-formed XML" };
  return ["urlset", "sitemapindex", "rss", "feed", "rdf:RDF"].includes(root)
    ? { kind: root === "sitemapindex" ? "index" : "pages", addresses, isCut }
    : { kind: "unreadable", reason: "is neither a sitemap nor a feed" };
}

class Fault extends Error {}

// W3C date and time as sitemaps write it, or RFC 822 as RSS does.
function momentOf(text: string): string | null {
  const at = Date.parse(text);
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}
