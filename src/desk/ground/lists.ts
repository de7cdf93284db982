import type { Portion, Sorted } from "../../store/ground/portions.ts";
import { z } from "zod";
import { Problem } from "./problem.ts";
import { type ListQuery, type Listing, cursorOffset, wholeListQuery } from "../../contract/ground/lists.ts";

/** Wraps a part of a list that began at the query's cursor. */
export function listing<T>(items: T[], total: number, query: Pick<ListQuery, "cursor">): Listing<T> {
  const next = cursorOffset(query.cursor) + items.length;
  return {
    items,
    total,
    nextCursor: items.length > 0 && next < total ? Buffer.from(String(next)).toString("base64url") : null,
  };
}

/** The part of a whole list that was asked for. */
export function partOf<T>(items: readonly T[], query: z.infer<typeof wholeListQuery>): Listing<T> {
  const from = cursorOffset(query.cursor);
  const part = items.slice(from, query.limit === undefined ? undefined : from + query.limit);
  return listing(part, items.length, query);
}

/** The portion of a list that a query asks for. Throws a 400 for a field that the list is not sorted by. */
export function portionOf(
  query: Pick<ListQuery, "sort" | "limit" | "cursor">,
  fields: Readonly<Record<string, unknown>>,
): Portion {
  return { sort: sortedBy(query.sort, fields), limit: query.limit, offset: cursorOffset(query.cursor) };
}

/** What a `sort` parameter says; undefined without one. Throws a 400 for a field that is none of these. */
export function sortedBy(
  sort: string | undefined,
  fields: Readonly<Record<string, unknown>>,
): Sorted | undefined {
  if (!sort) return undefined;
  const field = sort.replace(/^-/, "");
  if (!Object.hasOwn(fields, field)) {
    const message = `Sort by one of ${Object.keys(fields).join(", ")}; a minus before it turns the order round.`;
    throw new Problem(400, "This cannot be taken as it is", message, { errors: [{ path: "sort", message }] });
  }
  return { field, down: sort.startsWith("-") };
}
