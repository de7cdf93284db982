import type { Migration } from "../migration.ts";

/** The country whose phone numbers a site's editors write without it; empty while nobody has said. */
export const country: Migration = {
  name: "011-country",
  statements: [`ALTER TABLE sites ADD COLUMN country text NOT NULL DEFAULT ''`],
};
