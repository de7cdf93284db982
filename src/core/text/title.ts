import { decodeHTML } from "entities/decode";

const MAX_WORDS = 300;

/**
 * The title that an HTML document gives itself, from its head (HTML section 4.2.2); null when it has none. Comments
 * before it are passed over. One pass: each sign is looked at a bounded number of times.
 */
export function titleIn(html: string): string | null {
  const lower = html.toLowerCase();
  let at = 0;
  while (at !== -1 && at < lower.length) {
    const tag = lower.indexOf("<", at);
    if (tag === -1) return null;
    if (lower.startsWith("<!--", tag)) at = endOf(lower, "-->", tag + 4);
    else if (lower.startsWith("<body", tag)) return null;
    else if (lower.startsWith("<title", tag) && /[\s/>]/.test(lower[tag + 6] ?? "")) {
      const open = lower.indexOf(">", tag);
      const close = open === -1 ? -1 : lower.indexOf("</title", open);
      if (close === -1) return null;
      return (
        decodeHTML(html.slice(open + 1, close).slice(0, MAX_WORDS * 20))
          .replace(/\s+/g, " ")
          .trim()
          .slice(0, MAX_WORDS) || null
      );
    } else at = tag + 1;
  }
  return null;
}

function endOf(text: string, sign: string, from: number): number {
  const at = text.indexOf(sign, from);
  return at === -1 ? -1 : at + sign.length;
}
