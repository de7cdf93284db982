import type { z } from "zod";
import { jobSchema } from "../../jobs.ts";
import { creativeSchema, creativePlaceSchema } from "../../../core/creatives/creative.ts";
import { fileSchema } from "../../../core/files/file.ts";
import { ledgerLinkSchema, ledgerViewSchema, ledgerFilterSchema } from "../../../core/ledger/ledger.ts";
import { resolvedLinkSchema } from "../../../core/links/resolved-link.ts";
import { missSchema } from "../../../core/misses/miss.ts";
import {
  navigationItemInputSchema,
  navigationItemSchema,
  navigationSchema,
} from "../../../core/navigation/navigation.ts";
import {
  pageSchema,
  pageSummarySchema,
  revisionSchema,
  categorySchema,
  placementSchema,
} from "../../../core/pages/page.ts";
import { pageSearchSchema } from "../../../core/pages/search.ts";
import { personSchema, memberSchema, handedLinkSchema } from "../../../core/people/member.ts";
import { accountSchema, sessionSchema } from "../../../core/people/person.ts";
import { tokenSchema } from "../../../core/people/token.ts";
import { partnerSchema, disclosureSchema } from "../../../core/programs/partner.ts";
import { programSchema, networkSchema } from "../../../core/programs/program.ts";
import { routeSchema, adviceSchema, routeHealthSchema } from "../../../core/routes/route.ts";
import {
  ruleSchema,
  ruleSetSchema,
  ruleVersionSchema,
  scheduleSchema,
  ruleMatchSchema,
  targetSchema,
} from "../../../core/rules/rule.ts";
import { ruleBundleSchema } from "../../../core/rules/sets/bundle.ts";
import { deliveredSiteSchema } from "../../../core/sites/delivered-site.ts";
import { historyEntrySchema, binItemSchema } from "../../../core/sites/history.ts";
import { siteHostSchema } from "../../../core/sites/host.ts";
import { routeDefaultsSchema } from "../../../core/sites/route-defaults.ts";
import { siteSchema, missPolicySchema } from "../../../core/sites/site.ts";

/** The shapes that the API's document names, because several calls have them in common. */
export const NAMED: Readonly<Record<string, z.ZodType>> = {
  Site: siteSchema,
  MissPolicy: missPolicySchema,
  SiteHost: siteHostSchema,
  Page: pageSchema,
  PageSummary: pageSummarySchema,
  Revision: revisionSchema,
  Category: categorySchema,
  Placement: placementSchema,
  PageSearch: pageSearchSchema,
  Navigation: navigationSchema,
  NavigationItem: navigationItemSchema,
  File: fileSchema,
  ResolvedLink: resolvedLinkSchema,
  Route: routeSchema,
  Advice: adviceSchema,
  RouteHealth: routeHealthSchema,
  Miss: missSchema,
  Rule: ruleSchema,
  RuleSet: ruleSetSchema,
  RuleVersion: ruleVersionSchema,
  Schedule: scheduleSchema,
  RuleMatch: ruleMatchSchema,
  Target: targetSchema,
  RuleBundle: ruleBundleSchema,
  LedgerLink: ledgerLinkSchema,
  LedgerView: ledgerViewSchema,
  LedgerFilter: ledgerFilterSchema,
  Program: programSchema,
  Network: networkSchema,
  Partner: partnerSchema,
  Disclosure: disclosureSchema,
  Creative: creativeSchema,
  CreativePlace: creativePlaceSchema,
  HistoryEntry: historyEntrySchema,
  BinItem: binItemSchema,
  Account: accountSchema,
  Session: sessionSchema,
  Token: tokenSchema,
  Person: personSchema,
  Member: memberSchema,
  HandedLink: handedLinkSchema,
  Job: jobSchema,
  RouteDefaults: routeDefaultsSchema,
  DeliveredSite: deliveredSiteSchema,
};

/** Those that have a schema of their own where they are sent. */
export const NAMED_SENT: Readonly<Record<string, z.ZodType>> = {
  ...NAMED,
  NavigationItem: navigationItemInputSchema,
};
