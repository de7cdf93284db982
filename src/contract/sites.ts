import { siteSchema, siteInputSchema, siteChangeSchema } from "../core/sites/site.ts";
import { z } from "zod";
import { hostChangeSchema, hostCheckSchema, hostInputSchema, siteHostSchema } from "../core/sites/host.ts";
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
  export: call("GET", "/sites/:site/whole", {
    summary: "Everything that a site holds, in formats that others read, as a zip; credentials are not in it",
    role: "owner",
    file: { media: ["application/zip"] },
  }),
  rest: call("POST", "/sites/:site/rest", {
    summary: "Let a site rest: readers get what they got, and nothing is changed",
    role: "owner",
    answer: siteSchema,
  }),
  wake: call("POST", "/sites/:site/wake", {
    summary: "Reopen an archived site",
    role: "owner",
    answer: siteSchema,
    ofResting: true,
  }),
  remove: call("DELETE", "/sites/:site", {
    summary:
      "Delete for good a site that is archived and was exported whole since; its key is given once more",
    role: "owner",
    body: z.strictObject({ key: z.string("key is the site's key.") }),
    ofResting: true,
  }),
  hosts: call("GET", "/sites/:site/hosts", {
    summary: "The hosts of a site, with what hangs on each",
    role: "reader",
    answer: listOf(siteHostSchema),
  }),
  addHost: call("POST", "/sites/:site/hosts", {
    summary: "Let a site be found under another name, too",
    role: "owner",
    body: hostInputSchema,
    answer: siteHostSchema,
    status: 201,
    madeAt: "/sites/:site/hosts/{name}",
  }),
  changeHost: call("PATCH", "/sites/:site/hosts/:host", {
    summary:
      "Change what a host is for, or its name, with all that hangs on it; one that is made primary takes the place of the one that was",
    role: "owner",
    body: hostChangeSchema,
    answer: siteHostSchema,
  }),
  checkHost: call("POST", "/sites/:site/hosts/:host/check", {
    summary: "Whether a host's name leads to this installation, plainly and by https",
    role: "reader",
    answer: hostCheckSchema,
  }),
  removeHost: call("DELETE", "/sites/:site/hosts/:host", {
    summary:
      "Remove a host from a site; not the primary one, nor one on which routes answer that answer nowhere else",
    role: "owner",
  }),
};
