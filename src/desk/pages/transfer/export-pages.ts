import { strToU8, zipSync } from "fflate";
import { generateJSON } from "@tiptap/html/server";
import { admitBody } from "../../../core/pages/body/admit.ts";
import type { WrittenBody } from "../../../core/pages/body/body.ts";
import { bodyExtensions } from "../../../core/pages/body/extensions.ts";
import { withFrontMatter, type PageMeta } from "../../../core/pages/formats/front-matter.ts";
import { writeHtmlFile } from "../../../core/pages/formats/html-file.ts";
import { letOut } from "../../../core/links/rewrite/let-out.ts";
import type { ExportQuery } from "../../../core/pages/transfer.ts";
import type { PageRow } from "../../../store/ground/models.ts";
import type { FileAnswer } from "../../../contract/ground/call.ts";
import { exactMarkdown } from "./exact-markdown.ts";
import { deliveredHtml, pageRow } from "../pages.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore, WithDeliveryPort } from "../../ground/parts.ts";
import { wholePages } from "../../../store/pages/pages.ts";

// The same pages give the same archive, byte for byte: no clock stands in it.
const ALWAYS = new Date(1980, 0, 1);

/** One page or all pages as a zip of HTML or Markdown files, as they are stored or as readers get them. */
export async function exportPages(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: ExportQuery,
): Promise<FileAnswer> {
  const rows = query.page ? [await pageRow(desk, site, query.page)] : await wholePages(desk.store, site.id);
  const files: Record<string, Uint8Array> = {};
  for (const row of rows) {
    const extension = query.format === "html" ? "html" : "md";
    files[`${exportedName(row.path)}.${extension}`] = strToU8(await pageFile(desk, site, row, query));
  }
  const name = query.page
    ? `${exportedName(rows[0]!.path).replaceAll("/", "-")}.zip`
    : `${site.key}-pages.zip`;
  return { name, content: zipSync(files, { mtime: ALWAYS, level: 6 }) };
}

/** One page as a file. */
export async function pageFile(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  row: PageRow,
  query: ExportQuery,
): Promise<string> {
  const delivered = query.as === "delivered";
  const source = delivered && row.published ? row.published : row;
  const { title, path, description, category, inNavigation, search = {} } = source;
  const meta: PageMeta = { title, path, description, category, inNavigation, search };
  const html = delivered ? await deliveredHtml(desk, site, row.id, !row.published) : letOut(row.html);
  if (query.format === "html") return writeHtmlFile(meta, html);
  const { body } = admitBody(delivered ? (generateJSON(html, bodyExtensions) as WrittenBody) : row.body);
  return withFrontMatter(meta, exactMarkdown(body));
}

/** What the file of a page is called, without its extension. */
export function exportedName(path: string): string {
  return path === "/" ? "index" : path.replace(/^\/|\/$/g, "");
}
