import { Parser } from "htmlparser2";
import type { Address } from "../address/address.ts";
import { repairAddress } from "../address/repair/repair.ts";
import { foreignPlaceholders, hasLeftOver } from "../programs/build-link.ts";

/** What was found in a snippet that a program supplies. */
export interface ReadSnippet {
  kind: "text" | "banner";
  /** Where the link leads, as the snippet says it. */
  href: string;
  words: string;
  picture: { src: string; alt: string; width: number | null; height: number | null } | null;
  /** A picture of one dot that only counts who sees it. */
  pixel: string | null;
  /** What was left out, in words. */
  leftOut: string[];
  /** Placeholders in its addresses that are not {id} and {sub}: somebody has to say what belongs there. */
  unfilled: string[];
}

export type SnippetOutcome = { ok: true; snippet: ReadSnippet } | { ok: false; reason: string };

const CARRIES_CODE = new Set([
  "script",
  "iframe",
  "object",
  "embed",
  "style",
  "form",
  "link",
  "meta",
  "base",
]);
const WITH_CONTENT = new Set(["script", "style", "iframe", "object"]);

interface Picture {
  src: string;
  alt: string;
  width: number | null;
  height: number | null;
  inLink: boolean;
}

/**
 * Reads a pasted snippet whole: its link, picture, size and counting pixel. Scripts, frames and event handlers are left
 * out and named; a snippet that has no link beside them is refused.
 */
export function readSnippet(html: string): SnippetOutcome {
  const leftOut = new Set<string>();
  const pictures: Picture[] = [];
  const hrefs: string[] = [];
  let words = "";
  let inLink = 0;
  let silent = 0;
  const parser = new Parser({
    onopentag(name, attributes) {
      if (CARRIES_CODE.has(name)) leftOut.add(name === "script" ? "a script" : `a ${name} element`);
      if (WITH_CONTENT.has(name)) silent += 1;
      if (silent > 0) return;
      if (Object.keys(attributes).some((one) => one.startsWith("on"))) leftOut.add("event handlers");
      if (name === "a" && attributes.href !== undefined) {
        hrefs.push(attributes.href.trim());
        inLink += 1;
      } else if (name === "img" && attributes.src !== undefined) {
        const { src, alt = "", width, height } = attributes;
        pictures.push({
          src: src.trim(),
          alt,
          width: sizeOf(width),
          height: sizeOf(height),
          inLink: inLink > 0,
        });
      }
    },
    ontext(text) {
      if (silent === 0 && inLink > 0) words += text;
    },
    onclosetag(name) {
      if (WITH_CONTENT.has(name)) silent -= 1;
      else if (name === "a") inLink = Math.max(0, inLink - 1);
    },
  });
  parser.end(html);
  return outcome({ hrefs, pictures, words: words.replace(/\s+/g, " ").trim(), leftOut: [...leftOut] });
}

function outcome(found: {
  hrefs: string[];
  pictures: Picture[];
  words: string;
  leftOut: string[];
}): SnippetOutcome {
  const { hrefs, pictures, words, leftOut } = found;
  const [href] = hrefs;
  if (href === undefined)
    return {
      ok: false,
      reason:
        leftOut.length > 0
          ? `There is no link beside ${leftOut.join(" and ")}: what only runs in a browser cannot be kept here.`
          : "There is no link in it.",
    };
  if (hrefs.some((one) => one !== href))
    return {
      ok: false,
      reason: "There are several links to different places in it; keep each as a creative of its own.",
    };
  const address = webAddress(href, "The link");
  if (!address.ok) return address;
  const banner = pictures.find((one) => one.inLink && !isPixel(one));
  const pixel = pictures.find(isPixel);
  for (const picture of [banner, pixel]) {
    const checked = picture && webAddress(picture.src, "The picture");
    if (checked && !checked.ok) return checked;
  }
  if (!banner && words === "") return { ok: false, reason: "The link has neither words nor a picture." };
  return {
    ok: true,
    snippet: {
      kind: banner ? "banner" : "text",
      href,
      words,
      picture: banner
        ? { src: banner.src, alt: banner.alt, width: banner.width, height: banner.height }
        : null,
      pixel: pixel?.src ?? null,
      leftOut,
      unfilled: foreignPlaceholders([href, banner?.src, pixel?.src].join("\n")),
    },
  };
}

// Placeholders are allowed here: they are filled when the creative is used.
function webAddress(address: string, what: string): { ok: true } | { ok: false; reason: string } {
  const repaired = repairAddress(address.replace(/\{[\w .-]*\}/g, "x"), { isExact: true });
  if (!repaired.ok) return { ok: false, reason: `${what} leads nowhere: ${repaired.reason.message}` };
  return repaired.form === "web" ? { ok: true } : { ok: false, reason: `${what} has no web address.` };
}

function isPixel({ width, height }: Picture): boolean {
  return width !== null && height !== null && width <= 2 && height <= 2;
}

function sizeOf(text: string | undefined): number | null {
  return text !== undefined && /^\d{1,4}(?:px)?$/.test(text.trim()) ? Number.parseInt(text, 10) : null;
}

/** Fills the account and the label into a creative's address; the reason when something is left to fill in. */
export function fillCreative(
  address: string,
  values: { id: string; sub: string },
): { ok: true; address: Address } | { ok: false; reason: string } {
  if (/\{id\}/i.test(address) && values.id === "")
    return { ok: false, reason: "The program has no tracking ID yet: the link would earn nothing." };
  const filled = address
    .replace(/\{id\}/gi, encodeURIComponent(values.id))
    .replace(/\{sub\}/gi, encodeURIComponent(values.sub));
  if (hasLeftOver(filled))
    return {
      ok: false,
      reason: "A placeholder was left in it; write {id} where the account belongs and {sub} for the label.",
    };
  const repaired = repairAddress(filled, { isExact: true });
  return repaired.ok
    ? { ok: true, address: repaired.address }
    : { ok: false, reason: repaired.reason.message };
}
