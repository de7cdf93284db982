import type { Migration } from "../migration.ts";

/** A second factor for signing in: its sealed secret, since when, the last code's step, and codes for when it is lost. */
export const secondFactor: Migration = {
  name: "015-second-factor",
  statements: [
    `ALTER TABLE people ADD COLUMN totp_secret text, ADD COLUMN totp_since timestamptz, ADD COLUMN totp_step bigint,
       ADD COLUMN recovery_hashes text[] NOT NULL DEFAULT '{}'`,
  ],
};
