import type { Migration } from "../migration.ts";

/** What passes through us on its way from an origin to readers: how much of it is, or would be, changed, with samples. */
export const front: Migration = {
  name: "023-front",
  statements: [
    `CREATE TABLE front_counts (
       site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, day date NOT NULL, passed bigint NOT NULL, pages bigint NOT NULL, changed_pages bigint NOT NULL,
       links bigint NOT NULL, changed_links bigint NOT NULL, misses bigint NOT NULL, failures bigint NOT NULL, PRIMARY KEY (site_id, day))`,
    `CREATE TABLE front_samples (
       site_id bigint NOT NULL REFERENCES sites ON DELETE CASCADE, page text NOT NULL, words text NOT NULL, href text NOT NULL, before jsonb NOT NULL,
       after jsonb NOT NULL, at timestamptz NOT NULL DEFAULT now(), PRIMARY KEY (site_id, page, words, href))`,
  ],
};
