import { LinkScanner, type LinkInHtml } from "./scan.ts";

export { type LinkInHtml } from "./scan.ts";

/** All links of a document, in source order. */
export function findLinks(html: string): LinkInHtml[] {
  const links: LinkInHtml[] = [];
  const scanner = new LinkScanner((link) => links.push(link));
  scanner.write(html);
  scanner.end();
  return links;
}
