import { z } from "zod";

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
    .regex(/^[A-Za-z0-9_-]*$/, "That is no cursor of ours.")
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

/** The ORDER BY of a `sort` parameter; an unknown field falls back to the first of the allowed ones. */
export function orderBy(sort: string | undefined, columns: Readonly<Record<string, string>>): string {
  const descending = sort?.startsWith("-") ?? false;
  const column = columns[sort?.replace(/^-/, "") ?? ""];
  const [fallback] = Object.values(columns);
  return column ? `${column} ${descending ? "DESC" : "ASC"} NULLS LAST` : `${fallback} DESC NULLS LAST`;
}
