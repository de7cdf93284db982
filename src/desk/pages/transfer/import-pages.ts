import { isDeepStrictEqual } from "node:util";
import { escapeAttribute } from "entities/escape";
import { destinationKind } from "../../../core/address/classify.ts";
import { pathKey } from "../../../core/address/path-key.ts";
import { bodyToHtml } from "../../../core/pages/body/to-html.ts";
import { decoded } from "../../../core/text/decoded.ts";
import { findLinks } from "../../../core/links/find.ts";
import { rewriteLinks } from "../../../core/links/rewrite/rewrite.ts";
import { walkTags } from "../../../core/links/start-tags.ts";
import { FILES_PREFIX } from "../../../core/files/files-prefix.ts";
import { fileSlug } from "../../../core/files/file.ts";
import { MAX_HTML, pageInputSchema, type PageInput } from "../../../core/pages/page.ts";
import type { ImportedFile, ImportReport } from "../../../core/pages/transfer.ts";
import { uploadFile } from "../../files/files.ts";
import { createPage, publishPage, savePage } from "../pages.ts";
import { snapshotSite } from "../../links/site-snapshot.ts";
import { fieldErrors, Problem } from "../../ground/problem.ts";
import type { SanitizedHtml } from "../sanitize-html.ts";
import type { OpenSite } from "../../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithReport } from "../../ground/parts.ts";
import type { Progress } from "../../../threads/progress.ts";
import type { JobKind } from "../../jobs/job-kind.ts";
import type { WithTexts } from "../texts/read-text.ts";
import type { Actor } from "../../../core/people/actor.ts";
import { findPageAt } from "../../../store/pages/pages.ts";

const TEXT = /\.(?:html?|xhtml|md|markdown)$/i;

interface Options {
  dryRun: boolean;
  publish: boolean;
}

/**
 * Brings in HTML or Markdown files, or a zip of them: each becomes a page, or a new draft of the page that has
 * its path. Other files of an archive are uploaded, and what the texts say of them by name leads to them.
 */
export async function importPages(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  name: string,
  content: Uint8Array,
  options: Options,
  progress: Progress,
): Promise<ImportReport> {
  const isZip = content[0] === 0x50 && content[1] === 0x4b && !TEXT.test(name);
  const unpacked = isZip ? await desk.texts.read({ do: "unpack", archive: content }) : [{ name, content }];
  const files: ImportedFile[] = [];
  const uploaded = new Map<string, string>();
  for (const file of unpacked) {
    await progress.step(files.length, unpacked.length);
    if ("refusal" in file) files.push(refusedFile(file.name, file.refusal));
    else if (!TEXT.test(file.name)) files.push(await upload(desk, actor, site, file, options, uploaded));
  }
  for (const file of unpacked) {
    if (!("content" in file && TEXT.test(file.name))) continue;
    await progress.step(files.length, unpacked.length);
    files.push(await bringPage(desk, actor, site, file, options, uploaded));
  }
  return { files: await withLinkKinds(desk, site, files) };
}

async function upload(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  file: { name: string; content: Uint8Array },
  { dryRun }: Options,
  uploaded: Map<string, string>,
): Promise<ImportedFile> {
  try {
    const extension = /\.(\w+)$/.exec(file.name)?.[1]?.toLowerCase() ?? "bin";
    const path = dryRun
      ? FILES_PREFIX + fileSlug(file.name, extension)
      : (await uploadFile(desk, actor, site, file.name, file.content)).path;
    uploaded.set(file.name, path);
    return { ...nothingOf(file.name), outcome: "uploaded", message: `Stands at ${path}.`, path };
  } catch (error) {
    if (error instanceof Problem) return refusedFile(file.name, error.message);
    throw error;
  }
}

async function bringPage(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  file: { name: string; content: Uint8Array },
  options: Options,
  uploaded: ReadonlyMap<string, string>,
): Promise<ImportedFile> {
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(file.content);
  } catch {
    return refusedFile(file.name, "The file is not UTF-8; save it as UTF-8 and import it again.");
  }
  if (text.length > MAX_HTML)
    return refusedFile(
      file.name,
      "The file has more than 5,000,000 characters; split it into several pages.",
    );
  const { meta, html, faults } = await desk.texts.read({ do: "file", name: file.name, text });
  const taken = await desk.texts.read({ do: "take", html: toUploads(html, file.name, uploaded) });
  const dropped = [...faults, ...taken.dropped];
  const input = pageInputSchema.safeParse({
    title: meta.title || titleOf(file.name),
    path: meta.path || pathOf(file.name),
    description: meta.description ?? "",
    category: meta.category ?? "",
    inNavigation: meta.inNavigation ?? false,
    search: meta.search ?? {},
  });
  if (!input.success)
    return refusedFile(
      file.name,
      fieldErrors(input.error)
        .map(({ message }) => message)
        .join(" "),
    );
  const brought: ImportedFile = {
    ...nothingOf(file.name),
    path: input.data.path,
    title: input.data.title,
    links: findLinks(bodyToHtml(taken.body)).map(({ href, words }) => ({ href, words, kind: "external" })),
    dropped,
  };
  try {
    return { ...brought, ...(await keep(desk, actor, site, input.data, taken, options)) };
  } catch (error) {
    if (error instanceof Problem) return { ...brought, outcome: "refused", message: error.message };
    throw error;
  }
}

type Kept = Pick<ImportedFile, "outcome" | "message" | "page">;

async function keep(
  desk: WithStore & WithDeliveryPort & WithReport & WithTexts,
  actor: Actor,
  site: OpenSite,
  input: PageInput,
  { body }: SanitizedHtml,
  { dryRun, publish }: Options,
): Promise<Kept> {
  const there = await findPageAt(desk.store, { siteId: site.id, key: pathKey(input.path) });
  if (!there) {
    if (dryRun) return { outcome: "created", message: "Would become a new page.", page: null };
    const { id } = await createPage(desk, actor, site, { ...input, body, publish });
    return {
      outcome: "created",
      message: publish ? "A new page, published." : "A new page, as a draft.",
      page: id,
    };
  }
  const same =
    bodyToHtml(body) === there.html &&
    (["title", "path", "description", "category", "inNavigation", "search"] as const).every((field) =>
      isDeepStrictEqual(input[field], there[field]),
    );
  if (same) return { outcome: "unchanged", message: "The page has this text already.", page: there.id };
  if (dryRun) return { outcome: "updated", message: "Would become the page's new draft.", page: there.id };
  const saved = await savePage(desk, actor, site, there.id, { ...input, body, version: there.version });
  if (publish) await publishPage(desk, actor, site, there.id, saved.version);
  return {
    outcome: "updated",
    message: publish ? "The page's new text, published." : "The page's new draft.",
    page: there.id,
  };
}

// A text that names a file of its archive means where that file stands now.
function toUploads(html: string, from: string, uploaded: ReadonlyMap<string, string>): string {
  if (uploaded.size === 0) return html;
  const target = (address: string): string | undefined => {
    if (/^(?:[a-z][a-z\d+.-]*:|\/\/|#)/i.test(address)) return undefined;
    const base = `http://archive.invalid/${encodeURI(from.toWellFormed())}`;
    if (!URL.canParse(address, base)) return undefined;
    return uploaded.get(decoded(new URL(address, base).pathname).slice(1));
  };
  const links = rewriteLinks(
    html,
    ({ href, rel, target: tab }) => ({ rel, target: tab, href: target(href) }),
    { keepOverride: true },
  );
  return withPictures(links, target);
}

const PICTURES: ReadonlySet<string> = new Set(["img"]);

// Pictures with the addresses that `target` has for them; all else stays.
function withPictures(html: string, target: (address: string) => string | undefined): string {
  const pieces: string[] = [];
  let from = 0;
  walkTags(
    html,
    {
      startTag({ attributes }) {
        const src = attributes.find(({ name }) => name === "src");
        const path = src && target(src.value);
        if (!src || path === undefined) return;
        pieces.push(html.slice(from, src.start), `src="${escapeAttribute(path)}"`);
        from = src.end;
      },
    },
    PICTURES,
  );
  pieces.push(html.slice(from));
  return pieces.join("");
}

async function withLinkKinds(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  files: readonly ImportedFile[],
): Promise<ImportedFile[]> {
  const resolver = (
    await snapshotSite(desk, site, [...new Set(files.flatMap(({ links }) => links.map(({ href }) => href)))])
  ).linkResolver();
  const coming = new Set(
    files.flatMap(({ path, outcome }) => (path && outcome !== "refused" ? [pathKey(path)] : [])),
  );
  return files.map((file) => ({
    ...file,
    links: file.links.map((link) => {
      const kind = destinationKind(link.href, resolver);
      // Pages that come in together know each other, also while this is only tried.
      return {
        ...link,
        kind: kind === "broken" && coming.has(pathKey(link.href)) ? ("page" as const) : kind,
      };
    }),
  }));
}

function titleOf(name: string): string {
  const stem = name.replace(/^.*\//, "").replace(TEXT, "");
  const words = stem.replace(/[-_]+/g, " ").trim();
  return words === "" ? "Untitled" : words[0]!.toUpperCase() + words.slice(1);
}

function pathOf(name: string): string {
  const plain = name
    .replace(TEXT, "")
    .replace(/(?:^|\/)index$/, "")
    .split("/")
    .map((part) =>
      part
        .normalize("NFKC")
        .trim()
        .replace(/[\s"<>`^{|}\\?#%]+/g, "-"),
    )
    .filter((part) => part !== "" && part !== ".");
  return `/${plain.join("/")}`;
}

function nothingOf(name: string): ImportedFile {
  return {
    name,
    outcome: "created",
    message: "",
    page: null,
    path: null,
    title: null,
    links: [],
    dropped: [],
  };
}

function refusedFile(name: string, message: string): ImportedFile {
  return { ...nothingOf(name), outcome: "refused", message };
}

/**
 * Brings files in while whoever brought them looks elsewhere. Begun again, what came in already is found as it is:
 * pages by their path and text, other files by their content.
 */
export const importPagesJob: JobKind<
  WithStore & WithDeliveryPort & WithReport & WithTexts,
  Options & { name: string },
  ImportReport
> = {
  name: "pages.import",
  run: async (desk, { actor, site, input: { name, ...options }, file }, progress) =>
    importPages(desk, actor, site, name, await file(), options, progress),
  oneOf: (siteId, { dryRun }) => `pages ${dryRun ? "tried" : "imported"} ${siteId}`,
};
