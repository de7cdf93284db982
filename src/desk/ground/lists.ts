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

/**
 * The ORDER BY of a `sort` parameter; without one, the first of the allowed fields, downwards. Throws a 400 for a field
 * that is none of them.
 */
export function orderBy(sort: string | undefined, columns: Readonly<Record<string, string>>): string {
  const { column, direction } = sortedBy(sort, columns) ?? {
    column: Object.values(columns)[0],
    direction: "DESC",
  };
  return `${column} ${direction} NULLS LAST`;
}

/** The column and direction of a `sort` parameter; undefined without one. Throws a 400 for an unknown field. */
export function sortedBy(
  sort: string | undefined,
  columns: Readonly<Record<string, string>>,
): { column: string; direction: "ASC" | "DESC" } | undefined {
  if (!sort) return undefined;
  const field = sort.replace(/^-/, "");
  if (!Object.hasOwn(columns, field)) {
    const message = `Sort by one of ${Object.keys(columns).join(", ")}; a minus before it turns the order round.`;
    throw new Problem(400, "This cannot be taken as it is", message, { errors: [{ path: "sort", message }] });
  }
  return { column: columns[field]!, direction: sort.startsWith("-") ? "DESC" : "ASC" };
}
