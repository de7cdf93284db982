import Papa from "papaparse";
import type { z } from "zod";
import type { Listing } from "../../contract/ground/lists.ts";
import type { todosQuery } from "../../contract/origin.ts";
import { addressOfWords } from "../../core/address/text-fragment.ts";
import { addressOnOrigin } from "../../core/origin/place.ts";
import { linkSource, sentenceOf, type Todo } from "../../core/origin/todo.ts";
import { guardedCell } from "../../core/text/spreadsheet-cell.ts";
import {
  htmlOfPages,
  keepTodos,
  listTodos,
  noteSentences,
  todoCounts,
  TODO_SORTS,
  type NewTodo,
  type TodoRow,
} from "../../store/origin/todos.ts";
import { listing, portionOf } from "../ground/lists.ts";
import type { WithReport, WithStore } from "../ground/parts.ts";
import type { WithThread } from "../jobs/desk-thread.ts";
import { DEFAULT_TIMEOUT_MS, requireFreshLedger, waitForLedger } from "../ledger/fresh-ledger.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { originRow } from "./origins.ts";

const PAGES_AT_ONCE = 200;
const MOST_EXPORTED = 50_000;

/** Brings the list of what is to be done elsewhere up to what was read and what rules ask. */
export async function freshTodos(desk: WithStore, site: OpenSite): Promise<void> {
  await findSentences(desk, site, await keepTodos(desk.store, { site: site.id }));
}

/** Writes the sentences of what is new on the list beside it. */
export async function findSentences(
  desk: WithStore,
  site: OpenSite,
  fresh: readonly NewTodo[],
): Promise<void> {
  const pages = [...new Set(fresh.map(({ pageId }) => pageId))];
  for (let at = 0; at < pages.length; at += PAGES_AT_ONCE) {
    const ids = pages.slice(at, at + PAGES_AT_ONCE);
    const html = new Map(
      (await htmlOfPages(desk.store, { site: site.id, ids })).map((page) => [page.id, page.html]),
    );
    const rows = fresh
      .filter(({ pageId }) => html.has(pageId))
      .map(({ id, pageId, ordinal }) => ({ id, sentence: sentenceOf(html.get(pageId)!, ordinal) }));
    await noteSentences(desk.store, rows);
  }
}

/** The list of what is to be done elsewhere: a portion of it, and how much is open, done and gone. */
export async function listOfTodos(
  desk: WithStore & WithReport & WithThread,
  site: OpenSite,
  query: z.infer<typeof todosQuery>,
): Promise<Listing<Todo> & { counts: { open: number; done: number; gone: number } }> {
  const origin = await originRow(desk, site);
  // What is being read may take long: the list is made from what is there.
  await waitForLedger(desk, site, DEFAULT_TIMEOUT_MS);
  await freshTodos(desk, site);
  const rows = await listTodos(
    desk.store,
    { site: site.id, state: query.state, q: query.q?.trim() },
    portionOf(query, TODO_SORTS),
  );
  const counts = Object.fromEntries(
    (await todoCounts(desk.store, { site: site.id })).map(({ state, links }) => [state, links]),
  );
  const items = rows.map((row) => todoOf(row, origin.address));
  return {
    ...listing(items, Number(rows[0]?.total ?? 0), query),
    counts: { open: counts.open ?? 0, done: counts.done ?? 0, gone: counts.gone ?? 0 },
  };
}

/** What is open, as a table for whoever does it there. */
export async function exportTodos(
  desk: WithStore & WithReport & WithThread,
  site: OpenSite,
): Promise<string> {
  const origin = await originRow(desk, site);
  await requireFreshLedger(desk, site);
  await freshTodos(desk, site);
  const rows = await listTodos(
    desk.store,
    { site: site.id, state: "open", q: undefined },
    { sort: undefined, limit: MOST_EXPORTED, offset: 0 },
  );
  const lines = rows.map((row) => {
    const { address, title, onPages, sentence, words, beforeHtml, afterHtml, why } = todoOf(
      row,
      origin.address,
    );
    return [
      address,
      title,
      onPages > 0 ? String(onPages) : "",
      sentence,
      words,
      beforeHtml,
      afterHtml,
      why,
    ].map(guardedCell);
  });
  return `${Papa.unparse([["page", "title", "on_pages", "sentence", "words", "before", "after", "why"], ...lines])}\r\n`;
}

function todoOf(row: TodoRow, origin: string): Todo {
  const before = { href: row.href, rel: row.beforeRel, target: row.beforeTarget };
  const after = { href: row.afterHref ?? row.href, rel: row.afterRel, target: row.afterTarget };
  const page = row.kind === "read" ? row.path : "";
  return {
    id: row.id,
    page,
    address: addressOfWords(addressOnOrigin(page, origin), row.words),
    title: row.title,
    onPages: row.onPages,
    sentence: row.sentence,
    words: row.words,
    before,
    after,
    beforeHtml: linkSource(before, row.words),
    afterHtml: linkSource(after, row.words),
    why: row.why,
    state: row.state,
    madeAt: row.madeAt.toISOString(),
    endedAt: row.endedAt?.toISOString() ?? null,
  };
}
