import { createHash } from "node:crypto";
import { publicAddress } from "../../core/address/public-address.ts";
import { ownPlace } from "../../core/address/classify.ts";
import { walkTags } from "../../core/links/start-tags.ts";
import { FILES_PREFIX } from "../../core/files/files-prefix.ts";
import { fileSlug, type FileChange, type FileUses, type SiteFile } from "../../core/files/file.ts";
import { FORMED_TYPES } from "../../core/files/picture.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { filesById, findFile, findFileOf, insertFile, usesOfAddresses } from "../../store/files/files.ts";
import type { FileRow, Row } from "../../store/ground/models.ts";
import { violatedIndex } from "../../store/ground/store.ts";
import { judgeContent } from "./file-content.ts";
import { FILE_SORTS, fileIds, readContent } from "../../store/files/files.ts";
import type { FileAnswer } from "../../contract/ground/call.ts";
import { listing, portionOf } from "../ground/lists.ts";
import { invalid, notFound } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { beforeAndAfter } from "../ground/before-after.ts";
import { audit } from "../ground/audit.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { type ListQuery, type Listing } from "../../contract/ground/lists.ts";
import type { Actor } from "../../core/people/actor.ts";
import { textsOfPages } from "../../store/pages/pages.ts";

/** The site's files; `q` looks in name, path and alternative text. */
export async function listFiles(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  query: ListQuery,
): Promise<Listing<SiteFile>> {
  const ids = await fileIds(desk.store, { site: site.id, q: query.q }, portionOf(query, FILE_SORTS));
  const rows = await filesById(
    desk.store,
    ids.map(({ id }) => id),
  );
  const items = await views(desk, site, rows);
  return listing(items, Number(ids[0]?.total ?? 0), query);
}

/** Takes a file in. The same content that is there already is not kept twice: its file is answered. */
export async function uploadFile(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  name: string,
  content: Uint8Array,
): Promise<SiteFile> {
  const judged = await judgeContent(name, content);
  const digest = createHash("sha256").update(content).digest("hex");
  const same = await findFileOf(desk.store, { siteId: site.id, digest });
  if (same) return (await views(desk, site, [same]))[0]!;
  const slug = fileSlug(name, judged.extension);
  for (let attempt = 1; ; attempt += 1) {
    const path = FILES_PREFIX + (attempt === 1 ? slug : slug.replace(/\.(\w+)$/, `-${attempt}.$1`));
    try {
      const row = await desk.store.transaction(async (transaction) => {
        const created = await insertFile(
          desk.store,
          {
            siteId: site.id,
            path,
            name: name.replace(/^.*[/\\]/, "").slice(0, 255),
            mediaType: judged.mediaType,
            bytes: content.length,
            width: judged.width,
            height: judged.height,
            digest,
            alt: "",
            createdBy: actor.name,
          },
          content,
          transaction,
        );
        await audit(
          desk,
          actor,
          { siteId: site.id, action: "file.upload", object: created.id, detail: { path } },
          transaction,
        );
        await noteChange(desk.store, transaction, { siteId: site.id, kind: "file", objectId: created.id });
        return created;
      });
      return (await views(desk, site, [row]))[0]!;
    } catch (error) {
      if (violatedIndex(error) !== "files_path" || attempt > 50) throw error;
    }
  }
}

/** A file as it was uploaded. */
export async function fileContent(desk: WithStore, site: OpenSite, id: string): Promise<FileAnswer> {
  const row = await fileRow(desk, site, id);
  const content = await readContent(desk.store, row.id);
  if (!content) throw notFound("The content of this file");
  return { name: row.name, type: row.mediaType, content };
}

/** Changes a file's alternative text or path, or which part of a picture is shown. */
export async function changeFile(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
  change: FileChange,
): Promise<SiteFile> {
  const row = await fileRow(desk, site, id);
  const isReshaped = change.crop !== undefined || change.focus !== undefined;
  if (isReshaped && !FORMED_TYPES.has(row.mediaType))
    throw invalid([
      {
        path: change.crop === undefined ? "focus" : "crop",
        message: `A file of type ${row.mediaType} is shown whole.`,
      },
    ]);
  try {
    await desk.store.transaction(async (transaction) => {
      const { alt, path, crop, focus } = row;
      const before = { alt, path, ...(isReshaped ? { crop, focus } : {}) };
      await row.update({ ...change, ...(isReshaped ? { shape: row.shape + 1 } : {}) }, { transaction });
      const detail = beforeAndAfter(before, { ...before, ...change });
      await audit(desk, actor, { siteId: site.id, action: "file.change", object: id, detail }, transaction);
      await noteChange(desk.store, transaction, { siteId: site.id, kind: "file", objectId: id });
    });
  } catch (error) {
    if (violatedIndex(error) === "files_path")
      throw invalid([{ path: "path", message: `Another file has the path ${change.path}.` }]);
    throw error;
  }
  return (await views(desk, site, [row]))[0]!;
}

/** Takes a file away from readers; `restoreFile` brings it back. */
export async function deleteFile(desk: WithStore, actor: Actor, site: OpenSite, id: string): Promise<void> {
  await setDeleted(desk, actor, await fileRow(desk, site, id), new Date());
}

/** Brings a file back, at another path (`address`) where its own was given away. */
export async function restoreFile(
  desk: WithStore & WithDeliveryPort,
  actor: Actor,
  site: OpenSite,
  id: string,
  address?: string,
): Promise<SiteFile> {
  const row = await findFile(desk.store, { id, siteId: site.id, evenDeleted: true });
  if (!row) throw notFound("This file");
  const path = address ?? row.path;
  try {
    await setDeleted(desk, actor, row, null, path);
  } catch (error) {
    if (violatedIndex(error) === "files_path")
      throw invalid([{ path: "path", message: `Another file has taken the path ${path} meanwhile.` }]);
    throw error;
  }
  return (await views(desk, site, [row]))[0]!;
}

/** The pages and blocks that link to the file or show it, in draft or published. */
export async function fileUses(desk: WithStore, site: OpenSite, id: string): Promise<FileUses> {
  const row = await fileRow(desk, site, id);
  return { items: (await usesOf(desk, site, [row.path])).get(row.path) ?? [] };
}

async function usesOf(
  desk: WithStore,
  site: OpenSite,
  paths: readonly string[],
): Promise<Map<string, FileUses["items"]>> {
  const uses = new Map<string, FileUses["items"]>();
  const candidates = await usesOfAddresses(desk.store, site.id, paths);
  const rows = await textsOfPages(desk.store, [...new Set(candidates.map(({ id }) => id))]);
  const places = new Map(
    rows.map(({ id, html, published }) => [id, placesIn(html + (published?.html ?? ""), site.hostNames)]),
  );
  for (const { address, ...use } of candidates) {
    if (places.get(use.id)?.has(address)) uses.set(address, [...(uses.get(address) ?? []), use]);
  }
  return uses;
}

// Every place of ours that a document links to or shows.
function placesIn(html: string, hosts: readonly string[]): Set<string> {
  const places = new Set<string>();
  walkTags(html, {
    startTag({ attributes }) {
      for (const { name, value } of attributes) {
        const place = name === "href" || name === "src" ? ownPlace(value, hosts) : undefined;
        if (place) places.add(place.key);
      }
    },
  });
  return places;
}

async function views(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  rows: readonly FileRow[],
): Promise<SiteFile[]> {
  const uses = await usesOf(
    desk,
    site,
    rows.map(({ path }) => path),
  );
  return rows.map((row) => ({
    id: row.id,
    path: row.path,
    name: row.name,
    mediaType: row.mediaType,
    bytes: row.bytes,
    width: row.width,
    height: row.height,
    alt: row.alt,
    crop: row.crop,
    focus: row.focus,
    isFormed: row.formed === row.shape || !FORMED_TYPES.has(row.mediaType),
    url: publicAddress(site.primary, row.path, desk.deliveryPort),
    uses: uses.get(row.path)?.length ?? 0,
    createdBy: row.createdBy,
    createdAt: row.createdAt.toISOString(),
  }));
}

/** Finds a file of the site. */
export async function fileRow(desk: WithStore, site: OpenSite, id: string): Promise<Row<FileRow>> {
  const row = await findFile(desk.store, { id, siteId: site.id });
  if (!row) throw notFound("This file");
  return row;
}

async function setDeleted(
  desk: WithStore,
  actor: Actor,
  row: Row<FileRow>,
  deletedAt: Date | null,
  path = row.path,
): Promise<void> {
  await desk.store.transaction(async (transaction) => {
    await row.update({ path, deletedAt }, { transaction, silent: true });
    const action = deletedAt === null ? "file.restore" : "file.delete";
    await audit(desk, actor, { siteId: row.siteId, action, object: row.id }, transaction);
    await noteChange(desk.store, transaction, { siteId: row.siteId, kind: "file", objectId: row.id });
  });
}
