import { siteSchema, siteInputSchema, siteChangeSchema } from "../core/sites/site.ts";
import { call, listOf } from "./ground/call.ts";

/** The calls about sites. */
export const sites = {
  list: call("GET", "/sites", {
    summary: "List the sites",
    role: "reader",
    answer: listOf(siteSchema),
  }),
  create: call("POST", "/sites", {
    summary: "Make a site",
    role: "owner",
    body: siteInputSchema,
    answer: siteSchema,
    status: 201,
  }),
  read: call("GET", "/sites/:site", {
    summary: "One site",
    role: "reader",
    answer: siteSchema,
  }),
  change: call("PATCH", "/sites/:site", {
    summary: "Change a site's name, variables and limits",
    role: "owner",
    body: siteChangeSchema,
    answer: siteSchema,
  }),
};
