import { z } from "zod";
import { Problem } from "./problem.ts";

/** What every list call understands. */
export const listQuery = z.object({
  limit: z.coerce
    .number("limit is a number.")
    .int()
    .min(1, "limit is at least 1.")
    .max(500, "limit is at most 500.")
    .default(100),
  cursor: z
    .string()
    .regex(/^[A-Za-z0-9_-]{0,40}$/, "That is no cursor of ours.")
    .refine((cursor) => cursor === "" || cursorOffset(cursor) > 0, "That is no cursor of ours.")
    .optional(),
  q: z.string().max(500).optional(),
  sort: z.string().max(60).optional(),
});
export type ListQuery = z.infer<typeof listQuery>;

/** A part of a list, and the cursor of the next part. */
export interface Listing<T> {
  items: T[];
  nextCursor: string | null;
  total: number;
}

/** The offset that a cursor stands for; 0 for none and for one that is not ours. */
export function cursorOffset(cursor: string | undefined): number {
  const offset = Number(Buffer.from(cursor ?? "", "base64url").toString("utf8"));
  return Number.isSafeInteger(offset) && offset > 0 ? offset : 0;
}

/** Wraps a part of a list that began at the query's cursor. */
export function listing<T>(items: T[], total: number, query: Pick<ListQuery, "cursor">): Listing<T> {
  const next = cursorOffset(query.cursor) + items.length;
  return {
    items,
    total,
    nextCursor: items.length > 0 && next < total ? Buffer.from(String(next)).toString("base64url") : null,
  };
}

/** What a list understands that is answered whole: without a limit it is all there. */
export const wholeListQuery = listQuery
  .pick({ cursor: true })
  .extend({ limit: listQuery.shape.limit.unwrap().optional() });

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
