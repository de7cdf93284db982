import type { origin as contract } from "../../contract/origin.ts";
import { asJob, type Handlers } from "../ground/http/handler.ts";
import { exportTodos, listOfTodos } from "./todos.ts";
import type { Reading } from "./reading/read-round.ts";
import type { WithDeliveryPort, WithReport } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import * as frame from "./frame.ts";
import * as front from "./front.ts";
import * as origins from "./origins.ts";
import { lookJob, roundJob } from "./reading-jobs.ts";

/** What the calls about pages that stand elsewhere do. */
export const originHandlers: Handlers<typeof contract, Reading & WithReport & WithJobs & WithDeliveryPort> = {
  read: ({ desk, site }) => origins.readOrigin(desk, site),
  name: ({ desk, actor, site, body }) => origins.nameOrigin(desk, actor, site, body),
  change: ({ desk, actor, site, body }) => origins.changeReading(desk, actor, site, body),
  drop: ({ desk, actor, site }) => origins.forgetOrigin(desk, actor, site),
  look: async (call) => {
    await origins.originRow(call.desk, call.site);
    return asJob(call, lookJob, null);
  },
  round: async (call) => {
    await origins.originRow(call.desk, call.site);
    return asJob(call, roundJob, call.body);
  },
  now: async (call) => {
    origins.placesOf(call.site, await origins.originRow(call.desk, call.site), call.body.addresses);
    return asJob(call, roundJob, { addresses: call.body.addresses });
  },
  front: ({ desk, site }) => front.readFront(desk, site),
  setFront: ({ desk, actor, site, body }) => front.changeFront(desk, actor, site, body),
  setFrame: ({ desk, actor, site, body }) => frame.changeFrame(desk, actor, site, body.frame),
  lookForAreas: ({ desk, site, body }) => frame.lookForAreas(desk, site, body.path),
  shownPage: ({ desk, site, query }) => frame.pageToPointAt(desk, site, query.path),
  checkFront: ({ desk, site }) => front.checkFront(desk, site),
  pages: ({ desk, site, query }) => origins.listOrigin(desk, site, query),
  todos: ({ desk, site, query }) => listOfTodos(desk, site, query),
  exportTodos: async ({ desk, site }) => ({
    name: `${site.key}-to-do.csv`,
    type: "text/csv; charset=utf-8",
    content: await exportTodos(desk, site),
  }),
  results: ({ desk, site }) => origins.readingResults(desk, site),
};
