import type { Migration } from "../migration.ts";

/** The language and time zone that a site's people see things in, and what its new routes are like. */
export const siteSettings: Migration = {
  name: "016-site-settings",
  statements: [
    `ALTER TABLE sites ADD COLUMN language text NOT NULL DEFAULT 'en-GB', ADD COLUMN time_zone text NOT NULL DEFAULT '',
       ADD COLUMN defaults jsonb NOT NULL DEFAULT '{}'`,
  ],
};
