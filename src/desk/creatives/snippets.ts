import { findLinks } from "../../core/links/find.ts";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import type { SnippetAnswer } from "../../core/pages/page.ts";
import { adoptPlaceholders, findPlaceholders } from "../../core/text/variables.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";

/**
 * Reads a partner's snippet: links and pictures are taken over, scripts and event handlers are not, and what was
 * left out is told. Placeholders that a site variable has the value for become places that are filled on delivery.
 */
export async function readSnippet(desk: WithTexts, site: OpenSite, html: string): Promise<SnippetAnswer> {
  const placeholders = findPlaceholders(html, site.variables);
  const { body, dropped } = await desk.texts.read({
    do: "take",
    html: adoptPlaceholders(html, placeholders),
  });
  const taken = bodyToHtml(body);
  return {
    body,
    dropped,
    placeholders,
    links: findLinks(taken).length,
    pictures: taken.match(/<img /g)?.length ?? 0,
  };
}
