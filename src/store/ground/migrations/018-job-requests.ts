import type { Migration } from "../migration.ts";

/** The id of the request that asked for long work: what is noted while it is done is known by it. */
export const jobRequests: Migration = {
  name: "018-job-requests",
  statements: [`ALTER TABLE jobs ADD COLUMN request text`],
};
