import type { programs as contract } from "../../contract/programs.ts";
import { asJob, wholeList, type Handlers } from "../ground/http/handler.ts";
import { listPrograms } from "./list-programs.ts";
import * as programs from "./programs.ts";
import { buildProgramLink } from "./build-link.ts";
import { keepCredentials, dropCredentials, showCredentials, renewSeals } from "./credentials.ts";
import { listNetworks, keepNetwork } from "./networks.ts";
import { pullCatalogueJob, searchCatalogue, searchFile } from "./catalogue.ts";
import type { WithStore, WithWorkspaceHosts, WithOutgoing, WithSeal } from "../ground/parts.ts";
import type { WithJobs } from "../jobs/jobs.ts";
import type { WithTexts } from "../pages/texts/read-text.ts";

/** What the calls about programs do. */
export const programsHandlers: Handlers<
  typeof contract,
  WithStore & WithWorkspaceHosts & WithOutgoing & WithSeal & WithTexts & WithJobs
> = {
  list: async ({ desk, site, query, now }) => wholeList(await listPrograms(desk, site, query, now)),
  create: ({ desk, actor, site, body, now }) => programs.createProgram(desk, actor, site, body, now),
  read: async ({ desk, site, params }) =>
    programs.programView(await programs.openProgram(desk, site, params.id)),
  change: ({ desk, actor, site, params, body, now }) =>
    programs.changeProgram(desk, actor, site, params.id, body, now),
  delete: ({ desk, actor, site, params }) => programs.deleteProgram(desk, actor, site, params.id),
  restore: ({ desk, actor, site, params }) => programs.restoreProgram(desk, actor, site, params.id),
  link: ({ desk, actor, site, params, body }) => buildProgramLink(desk, actor, site, params.id, body),
  keepCredentials: ({ desk, actor, site, params, body }) =>
    keepCredentials(desk, actor, site, params.id, body),
  dropCredentials: ({ desk, actor, site, params }) => dropCredentials(desk, actor, site, params.id),
  showCredentials: ({ desk, actor, site, params }) => showCredentials(desk, actor, site, params.id),
  renewCredentials: ({ desk, actor, site }) => renewSeals(desk, actor, site),
  networks: async ({ desk, site }) => wholeList(await listNetworks(desk, site)),
  keepNetwork: ({ desk, actor, site, body }) => keepNetwork(desk, actor, site, body),
  catalogue: ({ desk, site, query }) => searchCatalogue(desk, site, query),
  pullCatalogue: (call) => asJob(call, pullCatalogueJob, call.body),
  searchFile: ({ desk, site, query, bytes }) => searchFile(desk, site, bytes, query.q),
};
