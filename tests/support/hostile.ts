import { mayLeave } from "../../src/core/address/may-leave.ts";
import { pathKey } from "../../src/core/address/path-key.ts";
import { looksLikeAddress, repairAddress } from "../../src/core/address/repair/repair.ts";
import { repairScheme } from "../../src/core/address/repair/scheme.ts";
import { unwrap } from "../../src/core/address/repair/unwrap.ts";
import { headingAnchors, withHeadingIds } from "../../src/core/pages/body/headings.ts";
import { readFrontMatter } from "../../src/core/pages/formats/front-matter.ts";
import { readHtmlFile } from "../../src/core/pages/formats/html-file.ts";
import { laidOut } from "../../src/core/pages/formats/lay-out.ts";
import { markdownToHtml } from "../../src/core/pages/formats/markdown.ts";
import { readRoutesCsv } from "../../src/core/routes/formats/route-table.ts";
import { findLinks } from "../../src/core/links/find.ts";
import { letOut } from "../../src/core/links/rewrite/let-out.ts";
import { plainText } from "../../src/core/links/plain-text.ts";
import { rewriteDocument } from "../../src/core/links/rewrite/rewrite-document.ts";
import { fileSlug } from "../../src/core/files/file.ts";
import { readAmount } from "../../src/core/earnings/money.ts";
import { readReportDate } from "../../src/core/earnings/report-date.ts";
import { programSlug } from "../../src/core/programs/slug.ts";
import { readSnippet } from "../../src/core/creatives/snippet.ts";
import { fillSubId, fitSubId } from "../../src/core/programs/sub-id.ts";
import { parseUrl } from "../../src/core/programs/parsed-url.ts";
import { readTemplate } from "../../src/core/programs/template.ts";
import { suggestSlugs } from "../../src/core/routes/slugs/suggest-slugs.ts";
import { decoded } from "../../src/core/text/decoded.ts";
import { pageText } from "../../src/core/text/difference.ts";
import { titleIn } from "../../src/core/text/title.ts";
import { fillVariables, findPlaceholders, variableNames } from "../../src/core/text/variables.ts";
import { sanitizeHtml } from "../../src/desk/pages/sanitize-html.ts";
import { isVectorPicture, vectorFault } from "../../src/desk/files/vector-picture.ts";

const site = { hosts: ["garden.example"], answers: () => undefined, routeDestination: () => undefined };

/** Every function that is handed text from outside; what it answers does not matter here. */
export const READERS: Readonly<Record<string, (text: string) => unknown>> = {
  repairAddress: (text) => repairAddress(text),
  looksLikeAddress,
  repairScheme,
  unwrap,
  mayLeave,
  pathKey,
  headingAnchors,
  withHeadingIds,
  readFrontMatter,
  readHtmlFile,
  laidOut,
  markdownToHtml,
  readRoutesCsv,
  findLinks,
  letOut,
  plainText,
  rewriteDocument: (text) => rewriteDocument(text, [], site),
  fileSlug: (text) => fileSlug(text, "txt"),
  readAmount: (text) => readAmount(text, "EUR", "."),
  readReportDate: (text) => readReportDate(text, "dmy"),
  programSlug: (text) => programSlug("{product}-{page}", { program: "p", page: text, destination: text }),
  readSnippet,
  fillSubId: (text) => fillSubId("{page}-{text}", { page: text, text } as never),
  fitSubId: (text) => fitSubId(text, 40),
  parseUrl: (text) => URL.canParse(text) && parseUrl(text),
  readTemplate,
  suggestSlugs: (text) => suggestSlugs(text, text, []),
  decoded,
  pageText,
  titleIn,
  fillVariables: (text) => fillVariables(text, { a: "b" }),
  variableNames,
  findPlaceholders: (text) => findPlaceholders(text, { account: "x" }),
  sanitizeHtml,
  isVectorPicture,
  vectorFault,
};

/** What makes readers look at the same signs again and again: each is repeated until the text is long enough. */
export const FRAGMENTS: readonly string[] = [
  "_a",
  "*",
  "**a",
  "`",
  "`a ",
  ">",
  "> a\n",
  "[",
  "[a](",
  "](",
  "![a](b ",
  "[a]: ",
  "(",
  "((a)",
  "<",
  "<a",
  "<a ",
  "<a href=",
  "<a href='",
  "<p>",
  "<b><i>",
  "</a>",
  "<title",
  "<title>",
  "<!--",
  "<!",
  "<?x",
  "<![CDATA[",
  "<svg ",
  "<style>",
  "<script>",
  "<h2>",
  "<img src=",
  "&",
  "&amp;",
  "&#",
  "{{",
  "{{ ",
  "{a",
  "%%",
  "%",
  "%41",
  "[A",
  "<<",
  "YOUR_",
  "YOURID_",
  " ",
  "\n",
  "\n\n",
  "\t",
  '"',
  "'",
  '"a',
  "/",
  "//",
  "\\",
  "http:",
  "http://",
  "https:https:",
  "a.",
  "a@",
  "-",
  "--- \n",
  "#",
  "?",
  "?a=",
  ";",
  ",",
  ", ",
  "|",
  "| a ",
  "1. ",
  "1,",
  "(1",
  "url(",
  "url( ",
  "@import ",
  "/*",
  "\u200B",
  "é",
  "xn--",
  "0",
  "9999-",
  "a:",
  "key: ",
];

/** A text of about so many characters that is one fragment over and over. */
export function repeated(fragment: string, length: number): string {
  return fragment.repeat(Math.ceil(length / fragment.length));
}
