import { catalogueEntrySchema } from "../core/programs/catalogue-entry.ts";
import { z } from "zod";
import {
  programListQuery,
  programFiguresSchema,
  programInputSchema,
  programSchema,
  programChangeSchema,
  linkQuestionSchema,
  builtLinkSchema,
  credentialsInputSchema,
  credentialsSchema,
  networkSchema,
  networkInputSchema,
} from "../core/programs/program.ts";
import { call, listOf } from "./ground/call.ts";

export const catalogueQuery = z.object({ network: z.string().max(120), q: z.string().max(200).optional() });

export const catalogueAnswerSchema = z.object({
  items: z.array(
    catalogueEntrySchema.extend({
      /** The program of the site that it is already: of that name, or with one of its domains. */
      known: z.object({ id: z.string(), name: z.string(), state: z.string() }).nullable(),
    }),
  ),
  total: z.int(),
  refused: z.array(z.object({ line: z.int(), message: z.string() })),
  /** When the network gave it; null for a file. */
  pulledAt: z.string().nullable(),
});

/** The largest catalogue that is taken, in bytes. */
export const MAX_CATALOGUE = 10_000_000;

/** The calls about programs. */
export const programs = {
  list: call("GET", "/sites/:site/programs", {
    summary: "The programs with their figures, all of them",
    role: "reader",
    query: programListQuery,
    answer: listOf(programFiguresSchema),
    ofLedger: true,
  }),
  create: call("POST", "/sites/:site/programs", {
    summary: "Add a program",
    role: "editor",
    body: programInputSchema,
    answer: programSchema,
    status: 201,
  }),
  read: call("GET", "/sites/:site/programs/:id", {
    summary: "One program",
    role: "reader",
    answer: programSchema,
  }),
  change: call("PATCH", "/sites/:site/programs/:id", {
    summary: "Change a program over the version it was read at",
    role: "editor",
    body: programChangeSchema,
    answer: programSchema,
  }),
  delete: call("DELETE", "/sites/:site/programs/:id", {
    summary: "Delete a program; it can be restored",
    role: "editor",
  }),
  restore: call("POST", "/sites/:site/programs/:id/restore", {
    summary: "Bring a program back",
    role: "editor",
    answer: programSchema,
  }),
  link: call("POST", "/sites/:site/programs/:id/link", {
    summary: "Build the tracked link to a page of the program's shop",
    role: "editor",
    body: linkQuestionSchema,
    answer: builtLinkSchema,
  }),
  keepCredentials: call("PUT", "/sites/:site/programs/:id/credentials", {
    summary: "Store the name and password of the program's account, encrypted",
    role: "editor",
    body: credentialsInputSchema,
  }),
  dropCredentials: call("DELETE", "/sites/:site/programs/:id/credentials", {
    summary: "Forget them",
    role: "editor",
  }),
  showCredentials: call("POST", "/sites/:site/programs/:id/credentials/show", {
    summary: "Show them; noted in the audit log",
    role: "editor",
    answer: credentialsSchema,
    showsSecret: true,
  }),
  renewCredentials: call("POST", "/sites/:site/credentials/renew", {
    summary: "Encrypt all stored credentials with the newest key",
    role: "owner",
    answer: z.object({ renewed: z.int(), unreadable: z.array(z.string()) }),
  }),
  networks: call("GET", "/sites/:site/networks", {
    summary: "The networks that programs belong to",
    role: "reader",
    answer: listOf(networkSchema),
  }),
  keepNetwork: call("PUT", "/sites/:site/networks", {
    summary: "Say what a network is; one of that name is replaced",
    role: "editor",
    body: networkInputSchema,
    answer: networkSchema,
  }),
  catalogue: call("GET", "/sites/:site/catalogue", {
    summary: "Search a network's catalogue",
    role: "reader",
    query: catalogueQuery,
    answer: catalogueAnswerSchema,
  }),
  pullCatalogue: call("POST", "/sites/:site/catalogue/pull", {
    summary: "Ask a network for its catalogue again, as a job",
    role: "editor",
    body: catalogueQuery.pick({ network: true }),
    answer: z.object({ pulledAt: z.string() }),
    job: "always",
  }),
  searchFile: call("POST", "/sites/:site/catalogue", {
    summary: "Search in a catalogue that comes as a file (CSV or JSON)",
    role: "reader",
    query: catalogueQuery.pick({ q: true }),
    bytes: { media: ["text/csv", "application/json", "*/*"], max: MAX_CATALOGUE },
    answer: catalogueAnswerSchema,
  }),
};
