import { z } from "zod";

/** How much of a robots.txt every crawler reads (RFC 9309, section 2.5). */
const MAX_BYTES = 500 * 1024;
/** Fields that crawlers know: those of RFC 9309, section 2.2, and what stands beside them (section 2.2.4). */
const FIELDS: ReadonlySet<string> = new Set([
  "user-agent",
  "allow",
  "disallow",
  "sitemap",
  "crawl-delay",
  "host",
  "clean-param",
  "request-rate",
  "visit-time",
  "noindex",
]);

/** The text of a robots.txt: each line is a field and its value, or a comment; a rule stands below whom it is for. */
export const robotsText = z
  .string("robots.txt is text.")
  .transform((text) => text.replace(/\r\n?/g, "\n").trim())
  .superRefine((text, context) => {
    const message =
      new TextEncoder().encode(text).length > MAX_BYTES
        ? "Crawlers read the first 500 kB of a robots.txt only; shorten it."
        : robotsFault(text);
    if (message) context.addIssue({ code: "custom", message });
  });

/** What is wrong with a robots.txt, by its line; undefined when nothing is (RFC 9309, section 2.2). */
export function robotsFault(text: string): string | undefined {
  let isFor = false;
  for (const [at, whole] of text.split("\n").entries()) {
    const written = whole.replace(/#.*/, "").trim();
    if (written === "") continue;
    const number = `Line ${at + 1}`;
    const [, field, value] = /^([^:]*):(.*)$/.exec(written) ?? [];
    if (field === undefined || value === undefined)
      return `${number}, “${written}”, is no rule: write a field, a colon and its value, such as Disallow: /drafts/`;
    const name = field.trim().toLowerCase();
    const says = value.trim();
    if (!FIELDS.has(name))
      return `${number}: crawlers know no field “${field.trim()}”; they know User-agent, Allow, Disallow and Sitemap.`;
    if (name === "user-agent") {
      if (says === "") return `${number}: whom is it for? “*” is every crawler.`;
      isFor = true;
    } else if (name === "sitemap") {
      if (!/^https?:\/\//i.test(says)) return `${number}: a sitemap is named by its whole address.`;
    } else if (!isFor) return `${number} stands above the first User-agent line, where no crawler reads it.`;
    if ((name === "allow" || name === "disallow") && says !== "" && !/^[/*$]/.test(says))
      return `${number}: a path in a rule begins with a slash or *.`;
  }
  return undefined;
}
