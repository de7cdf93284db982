import { ruleBundleSchema } from "../../core/rules/sets/bundle.ts";
import { bundleRules } from "./bundle.ts";
import { z } from "zod";
import {
  adviceListSchema,
  attributesAnswerSchema,
  attributesQuestionSchema,
  rewriteAnswerSchema,
  rewriteInputSchema,
  ruleSetSchema,
  rulesInputSchema,
  rulesTrySchema,
  ruleVersionFullSchema,
  ruleVersionSchema,
  scheduleInputSchema,
  scheduleSchema,
  triedRulesSchema,
} from "../../core/rules/rule.ts";
import { htmlOf, MAX_REWRITTEN, rewriteHtml } from "./rewrite.ts";
import { adviceOn, askAttributes, currentRules, replaceRules } from "./rules.ts";
import { dropSchedule, readSchedule, scheduleRules } from "./schedule.ts";
import { listVersions, putBackVersion, readVersion } from "./versions.ts";
import { tryRulesTask } from "./try-rules.ts";
import {
  asPreferred,
  listOf,
  operation,
  type Operation,
  SITE,
  TEXT_BODY,
  wholeList,
} from "../ground/http/operation.ts";

const RULES = `${SITE}/rules`;

/** The calls of the station Rules. */
export const ruleOperations: readonly Operation[] = [
  operation("GET", RULES, {
    summary: "The rules in force",
    role: "reader",
    answer: ruleSetSchema,
    run: ({ desk, site }) => currentRules(desk, site),
  }),
  operation("GET", `${RULES}/bundle`, {
    summary: "The rules in force with all that they look at: a file for “maprope rewrite --rules”",
    role: "reader",
    answer: ruleBundleSchema,
    run: ({ desk, site }) => bundleRules(desk, site),
  }),
  operation("PUT", RULES, {
    summary: "Replace the set of rules; says what is to be said of it",
    role: "editor",
    body: rulesInputSchema,
    answer: ruleSetSchema.extend({ advice: adviceListSchema }),
    run: async ({ desk, actor, site, body }) => {
      const saved = await replaceRules(desk, actor, site, body.version, body.rules);
      return { ...saved, advice: adviceOn(site, saved.rules) };
    },
  }),
  operation("POST", `${RULES}/try`, {
    summary: "What a set would change on the whole site; with “Prefer: respond-async” as a job",
    role: "reader",
    body: rulesTrySchema,
    answer: triedRulesSchema,
    run: (call) =>
      asPreferred(call, "rules.try", (progress) =>
        call.desk.thread.run(tryRulesTask, call.site.id, call.body, progress),
      ),
  }),
  operation("POST", `${RULES}/advice`, {
    summary: "What is to be said of a set of rules",
    role: "reader",
    body: rulesTrySchema.pick({ rules: true }),
    answer: z.object({ advice: adviceListSchema }),
    run: async ({ site, body }) => ({ advice: adviceOn(site, body.rules) }),
  }),
  operation("GET", `${RULES}/versions`, {
    summary: "Every set that was in force, newest first, with what it changed",
    role: "reader",
    answer: listOf(ruleVersionSchema),
    run: async ({ desk, site }) => wholeList(await listVersions(desk, site)),
  }),
  operation("GET", `${RULES}/versions/:version`, {
    summary: "One kept set, and what putting it back would change",
    role: "reader",
    answer: ruleVersionFullSchema,
    run: ({ desk, site, params }) => readVersion(desk, site, params.version!),
  }),
  operation("POST", `${RULES}/versions/:version/restore`, {
    summary: "Put a kept set into force again",
    role: "editor",
    body: rulesInputSchema.pick({ version: true }),
    answer: ruleSetSchema,
    run: ({ desk, actor, site, params, body }) =>
      putBackVersion(desk, actor, site, params.version!, body.version),
  }),
  operation("GET", `${RULES}/schedule`, {
    summary: "The set that comes into force by itself; null when none waits",
    role: "reader",
    answer: z.object({ schedule: scheduleSchema.nullable() }),
    run: async ({ desk, site }) => ({ schedule: await readSchedule(desk, site) }),
  }),
  operation("PUT", `${RULES}/schedule`, {
    summary: "Let a set come into force at a time",
    role: "editor",
    body: scheduleInputSchema,
    answer: z.object({ schedule: scheduleSchema.nullable() }),
    run: async ({ desk, actor, site, body, now }) => ({
      schedule: await scheduleRules(desk, actor, site, body, now),
    }),
  }),
  operation("DELETE", `${RULES}/schedule`, {
    summary: "Let the waiting set never come into force",
    role: "editor",
    status: 204,
    run: ({ desk, actor, site }) => dropSchedule(desk, actor, site),
  }),
  operation("POST", `${SITE}/attributes`, {
    summary: "The rel and target that a link would be delivered with, and why",
    role: "reader",
    body: attributesQuestionSchema,
    answer: attributesAnswerSchema,
    run: ({ desk, site, body }) => askAttributes(desk, site, body),
  }),
  operation("POST", `${SITE}/rewrite`, {
    summary: "The site's rules applied to any document: text/html in, text/html out",
    role: "reader",
    query: z.object({ page: z.string().max(1024).optional(), category: z.string().max(120).optional() }),
    takesBytes: MAX_REWRITTEN,
    media: "text/html",
    run: async ({ desk, site, query, bytes, contentType }) =>
      (await rewriteHtml(desk, site, { ...query, html: htmlOf(bytes, contentType) })).html,
  }),
  operation("POST", `${SITE}/rewrite/report`, {
    summary: "The same with a report of what changed, as JSON",
    role: "reader",
    body: rewriteInputSchema,
    mostBody: TEXT_BODY,
    answer: rewriteAnswerSchema,
    run: ({ desk, site, body }) => rewriteHtml(desk, site, body),
  }),
];
