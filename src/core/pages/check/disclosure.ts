import { findLinks } from "../../links/find.ts";
import { plainText } from "../../links/plain-text.ts";
import type { Disclosure } from "../../programs/partner.ts";
import { relTokens } from "../../rules/resolve/link-attributes.ts";
import { linkFacts, type LinkResolver } from "../../rules/resolve/link-facts.ts";
import { isPaid } from "./rule-findings.ts";

/** True when a text says these words, whatever the letter case and white space. */
export function tells(text: string, words: string): boolean {
  const plain = (one: string): string => one.replace(/\s+/g, " ").trim().toLowerCase();
  return plain(words) !== "" && plain(text).includes(plain(words));
}

/** Whether readers of a page with this text are told of paid links: by itself, or by what delivery places on it. */
export function isDisclosed(text: string, disclosure: Disclosure): boolean {
  return disclosure.place || tells(text, disclosure.text);
}

/**
 * The disclosure that a page is to be delivered with: where the site places it and one of these delivered fragments
 * carries a paid link, and none of them tells readers already. Undefined where nothing is to be said.
 */
export function placedDisclosure(
  delivered: readonly string[],
  { text, place }: Disclosure,
  site: LinkResolver,
): string | undefined {
  if (!place || text === "") return undefined;
  const carriesPaid = delivered.some((html) =>
    findLinks(html).some(({ href, rel, anchor }) =>
      isPaid({ rel: relTokens(rel ?? ""), programs: linkFacts({ href, anchor }, site).programs }),
    ),
  );
  const isTold = (): boolean => delivered.some((html) => tells(plainText(html).text, text));
  return carriesPaid && !isTold() ? text : undefined;
}
