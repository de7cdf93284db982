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

/** What a list understands that is answered whole: without a limit it is all there. */
export const wholeListQuery = listQuery
  .pick({ cursor: true })
  .extend({ limit: listQuery.shape.limit.unwrap().optional() });
