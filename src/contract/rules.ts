import { MAX_HTML } from "../core/pages/page.ts";
import { z } from "zod";
import {
  ruleSetSchema,
  rulesInputSchema,
  adviceListSchema,
  rulesTrySchema,
  triedRulesSchema,
  ruleVersionSchema,
  ruleVersionFullSchema,
  scheduleSchema,
  scheduleInputSchema,
  attributesQuestionSchema,
  manyAttributesSchema,
  attributesAnswerSchema,
  rewriteInputSchema,
  rewriteAnswerSchema,
} from "../core/rules/rule.ts";
import { ruleBundleSchema } from "../core/rules/sets/bundle.ts";
import { TEXT_BODY, call, listOf } from "./ground/call.ts";

/** The largest document that is taken, in bytes. */
const MAX_REWRITTEN = MAX_HTML;

/** The calls about rules. */
export const rules = {
  read: call("GET", "/sites/:site/rules", {
    summary: "The rules in force",
    role: "reader",
    answer: ruleSetSchema,
  }),
  bundle: call("GET", "/sites/:site/rules/bundle", {
    summary: "The rules in force with all that they look at: a file for “maprope rewrite --rules”",
    role: "reader",
    answer: ruleBundleSchema,
  }),
  replace: call("PUT", "/sites/:site/rules", {
    summary: "Replace the set of rules; says what is to be said of it",
    role: "editor",
    body: rulesInputSchema,
    answer: ruleSetSchema.extend({ advice: adviceListSchema }),
  }),
  try: call("POST", "/sites/:site/rules/try", {
    summary: "What a set would change on the whole site; with “Prefer: respond-async” as a job",
    role: "reader",
    body: rulesTrySchema,
    answer: triedRulesSchema,
    job: "preferred",
  }),
  advise: call("POST", "/sites/:site/rules/advice", {
    summary: "What is to be said of a set of rules",
    role: "reader",
    body: rulesTrySchema.pick({ rules: true }),
    answer: z.object({ advice: adviceListSchema }),
  }),
  versions: call("GET", "/sites/:site/rules/versions", {
    summary: "Every set that was in force, newest first, with what it changed",
    role: "reader",
    answer: listOf(ruleVersionSchema),
  }),
  version: call("GET", "/sites/:site/rules/versions/:version", {
    summary: "One kept set, and what putting it back would change",
    role: "reader",
    answer: ruleVersionFullSchema,
  }),
  restoreVersion: call("POST", "/sites/:site/rules/versions/:version/restore", {
    summary: "Put a kept set into force again",
    role: "editor",
    body: rulesInputSchema.pick({ version: true }),
    answer: ruleSetSchema,
  }),
  schedule: call("GET", "/sites/:site/rules/schedule", {
    summary: "The set that comes into force by itself; null when none waits",
    role: "reader",
    answer: z.object({ schedule: scheduleSchema.nullable() }),
  }),
  setSchedule: call("PUT", "/sites/:site/rules/schedule", {
    summary: "Let a set come into force at a time",
    role: "editor",
    body: scheduleInputSchema,
    answer: z.object({ schedule: scheduleSchema.nullable() }),
  }),
  dropSchedule: call("DELETE", "/sites/:site/rules/schedule", {
    summary: "Let the waiting set never come into force",
    role: "editor",
  }),
  attributes: call("POST", "/sites/:site/attributes", {
    summary: "The rel and target that a link would be delivered with, and why",
    role: "reader",
    body: attributesQuestionSchema,
    answer: attributesAnswerSchema,
  }),
  manyAttributes: call("POST", "/sites/:site/attributes/many", {
    summary: "The same for many links at once, in their order",
    role: "reader",
    body: manyAttributesSchema,
    answer: z.object({ items: z.array(attributesAnswerSchema) }),
  }),
  rewrite: call("POST", "/sites/:site/rewrite", {
    summary: "The site's rules applied to any document: text/html in, text/html out",
    role: "reader",
    query: z.object({ page: z.string().max(1024).optional(), category: z.string().max(120).optional() }),
    bytes: { media: ["text/html", "application/xhtml+xml", "text/plain"], max: MAX_REWRITTEN },
    html: {},
  }),
  rewriteReport: call("POST", "/sites/:site/rewrite/report", {
    summary: "The same with a report of what changed, as JSON",
    role: "reader",
    body: rewriteInputSchema,
    maxBody: TEXT_BODY,
    answer: rewriteAnswerSchema,
  }),
};
