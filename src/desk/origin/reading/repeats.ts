import { repeatedParts, type KeyedPage } from "../../../core/origin/repeats.ts";
import type { Area } from "../../../core/origin/reduce.ts";
import { plainText } from "../../../core/links/plain-text.ts";
import {
  blocksOfReadings,
  keepReadPages,
  keepRepeated,
  keysOfReadings,
  type RepeatedPartRow,
} from "../../../store/origin/read-pages.ts";
import type { WithStore } from "../../ground/parts.ts";
import type { Task } from "../../jobs/task.ts";

const PORTION = 500;
const TITLE_LENGTH = 60;

const AREA_WORD: Readonly<Record<Area, string>> = {
  menu: "Menu",
  head: "Head of pages",
  foot: "Foot of pages",
  side: "Side box",
  text: "In the text",
};

/** Finds anew what stands on many pages, and takes it out of what is each page's own. */
export const findRepeatsTask: Task<WithStore, null, void> = {
  name: "origin.repeats",
  async run(desk, site, _input, progress) {
    const { ids, pages, sampleOf } = await keyedPages(desk, site.id);
    const parts = repeatedParts(pages);
    const html = await htmlOf(
      desk,
      site.id,
      parts.flatMap(({ keys }) => keys),
      sampleOf,
    );
    const rows = parts.map(({ area, keys, pages: count }): RepeatedPartRow => {
      const own = keys.map((key) => html.get(key) ?? "").join("\n");
      return {
        name: `~repeated/${area}/${keys[0]!}`,
        title: titleOf(area, own),
        html: own,
        keys,
        pages: count,
      };
    });
    const hasChanged = await keepRepeated(desk.store, { site: site.id, foundIn: ids[0], parts: rows });
    if (!hasChanged) return;
    for (let at = 0; at < ids.length; at += PORTION) {
      await keepReadPages(desk.store, { site: site.id, ids: ids.slice(at, at + PORTION) });
      await progress.step(Math.min(ids.length, at + PORTION), ids.length);
    }
  },
};

async function keyedPages(desk: WithStore, site: string) {
  const ids: string[] = [];
  const pages: KeyedPage[] = [];
  const sampleOf = new Map<string, string>();
  for (let after = "0"; ;) {
    const rows = await keysOfReadings(desk.store, { site, after, most: PORTION });
    for (const { id, part, keys } of rows) {
      ids.push(id);
      const blocks =
        keys === ""
          ? []
          : keys.split(" ").map((one) => {
              const [area, key] = one.split(":") as [Area, string];
              if (!sampleOf.has(key)) sampleOf.set(key, id);
              return { area, key };
            });
      pages.push({ part, blocks });
    }
    if (rows.length < PORTION) return { ids, pages, sampleOf };
    after = rows.at(-1)!.id;
  }
}

async function htmlOf(
  desk: WithStore,
  site: string,
  keys: readonly string[],
  sampleOf: ReadonlyMap<string, string>,
) {
  const html = new Map<string, string>();
  const samples = [...new Set(keys.map((key) => sampleOf.get(key)!))];
  for (let at = 0; at < samples.length; at += PORTION) {
    for (const { blocks } of await blocksOfReadings(desk.store, {
      site,
      ids: samples.slice(at, at + PORTION),
    }))
      for (const block of blocks) html.set(block.key, block.html);
  }
  return html;
}

// “Menu: Home, Notes, …”
function titleOf(area: Area, html: string): string {
  const words = plainText(html).text.replace(/\s+/g, " ").trim();
  const cut = words.length > TITLE_LENGTH ? `${words.slice(0, TITLE_LENGTH).replace(/\s\S*$/, "")} …` : words;
  return `${AREA_WORD[area]}: ${cut}`;
}
