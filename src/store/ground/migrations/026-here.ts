import type { Migration } from "../migration.ts";

/** Paths that are written here alone, of sites whose other pages stand elsewhere. */
export const here: Migration = {
  name: "026-here",
  statements: [`UPDATE sites SET origin = '{"here": []}' || origin WHERE origin IS NOT NULL`],
};
