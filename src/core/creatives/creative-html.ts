import { escapeAttribute, escapeText } from "entities/escape";
import { fillCreative, type ReadSnippet } from "./snippet.ts";

export type FilledCreative =
  | {
      ok: true;
      href: string;
      /** What stands in its link: words, or the picture. */
      inside: string;
      /** Address of its picture; null for words. */
      picture: string | null;
      html: string;
    }
  | { ok: false; reason: string };

/**
 * A creative ready to use: only its link, its words or picture and its counting pixel, filled from the account. Nothing
 * else of the snippet ever reaches a page. `id` is the creative's, by which the places that use it are known.
 */
export function filledCreative(
  snippet: ReadSnippet,
  values: { id: string; sub: string },
  id: string,
): FilledCreative {
  const link = fillCreative(snippet.href, values);
  if (!link.ok) return link;
  const picture = snippet.picture && fillCreative(snippet.picture.src, values);
  if (picture && !picture.ok) return picture;
  const pixel = snippet.pixel === null ? undefined : fillCreative(snippet.pixel, values);
  if (pixel && !pixel.ok) return pixel;
  const size = (name: string, value: number | null): string => (value === null ? "" : ` ${name}="${value}"`);
  const inside =
    snippet.picture && picture
      ? `<img src="${escapeAttribute(picture.address)}" alt="${escapeAttribute(snippet.picture.alt)}"${size("width", snippet.picture.width)}${size("height", snippet.picture.height)}>`
      : escapeText(snippet.words);
  const counter = pixel ? `<img src="${escapeAttribute(pixel.address)}" alt="" width="1" height="1">` : "";
  return {
    ok: true,
    href: link.address,
    inside,
    picture: picture?.ok ? picture.address : null,
    html: `<a href="${escapeAttribute(link.address)}" data-creative="${id}">${inside}</a>${counter}`,
  };
}
