import type { rules as contract } from "../../contract/rules.ts";
import { currentRules, replaceRules, adviceOn, askAttributes } from "./rules.ts";
import { bundleRules } from "./bundle.ts";
import { asPreferred, wholeList, type Handlers } from "../ground/http/handler.ts";
import { tryRulesJob } from "./try-rules.ts";
import { listVersions, readVersion, putBackVersion } from "./versions.ts";
import { readSchedule, scheduleRules, dropSchedule } from "./schedule.ts";
import { rewriteHtml, htmlOf } from "./rewrite.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithThread } from "../jobs/desk-thread.ts";

/** What the calls about rules do. */
export const rulesHandlers: Handlers<typeof contract, WithStore & WithDeliveryPort & WithJobs & WithThread> =
  {
    read: ({ desk, site }) => currentRules(desk, site),
    bundle: ({ desk, site }) => bundleRules(desk, site),
    replace: async ({ desk, actor, site, body }) => {
      const saved = await replaceRules(desk, actor, site, body.version, body.rules);
      return { ...saved, advice: adviceOn(site, saved.rules) };
    },
    try: (call) => asPreferred(call, tryRulesJob, call.body),
    advise: async ({ site, body }) => ({ advice: adviceOn(site, body.rules) }),
    versions: async ({ desk, site }) => wholeList(await listVersions(desk, site)),
    version: ({ desk, site, params }) => readVersion(desk, site, params.version),
    restoreVersion: ({ desk, actor, site, params, body }) =>
      putBackVersion(desk, actor, site, params.version, body.version),
    schedule: async ({ desk, site }) => ({ schedule: await readSchedule(desk, site) }),
    setSchedule: async ({ desk, actor, site, body, now }) => ({
      schedule: await scheduleRules(desk, actor, site, body, now),
    }),
    dropSchedule: ({ desk, actor, site }) => dropSchedule(desk, actor, site),
    attributes: async ({ desk, site, body }) => (await askAttributes(desk, site, [body]))[0]!,
    manyAttributes: async ({ desk, site, body }) => ({ items: await askAttributes(desk, site, body.links) }),
    rewrite: async ({ desk, site, query, bytes, contentType }) =>
      (await rewriteHtml(desk, site, { ...query, html: htmlOf(bytes, contentType) })).html,
    rewriteReport: ({ desk, site, body }) => rewriteHtml(desk, site, body),
  };
