import type { clicks as contract } from "../../contract/clicks.ts";
import { askClicks, latestClicks, exportClicks } from "./clicks.ts";
import { type Handlers } from "../ground/http/handler.ts";
import type { WithStore } from "../ground/parts.ts";

/** What the calls about clicks do. */
export const clicksHandlers: Handlers<typeof contract, WithStore> = {
  ask: ({ desk, site, query, now }) => askClicks(desk, site, query, now),
  latest: ({ desk, site, query, now }) => latestClicks(desk, site, query, now),
  export: async ({ desk, site, query, now }) => ({
    name: `${site.key}-clicks.csv`,
    type: "text/csv; charset=utf-8",
    content: await exportClicks(desk, site, query, now),
  }),
};
