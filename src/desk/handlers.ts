import { contract } from "../contract/contract.ts";
import { blocksHandlers } from "./blocks/handlers.ts";
import { clicksHandlers } from "./clicks/handlers.ts";
import { creativesHandlers } from "./creatives/handlers.ts";
import { earningsHandlers } from "./earnings/handlers.ts";
import { filesHandlers } from "./files/handlers.ts";
import { jobsHandlers } from "./jobs/handlers.ts";
import { ledgerHandlers } from "./ledger/handlers.ts";
import { linksHandlers } from "./links/handlers.ts";
import { missesHandlers } from "./misses/handlers.ts";
import { navigationHandlers } from "./navigation/handlers.ts";
import { originHandlers } from "./origin/handlers.ts";
import { pagesHandlers } from "./pages/handlers.ts";
import { accountHandlers } from "./people/account-handlers.ts";
import { peopleHandlers } from "./people/handlers.ts";
import { programsHandlers } from "./programs/handlers.ts";
import { routesHandlers } from "./routes/handlers.ts";
import { rulesHandlers } from "./rules/handlers.ts";
import { swapsHandlers } from "./rules/swaps/handlers.ts";
import { historyHandlers } from "./sites/history-handlers.ts";
import { sitesHandlers } from "./sites/handlers.ts";
import { traceHandlers } from "./trace/handlers.ts";
import type { Desk } from "./desk.ts";
import { handled, type Handled } from "./ground/http/handler.ts";

/** Every call of the API with what it does, in the order of the documentation. */
export const HANDLED: readonly Handled<Desk>[] = [
  ...handled(contract.sites, sitesHandlers),
  ...handled(contract.pages, pagesHandlers),
  ...handled(contract.blocks, blocksHandlers),
  ...handled(contract.navigation, navigationHandlers),
  ...handled(contract.files, filesHandlers),
  ...handled(contract.links, linksHandlers),
  ...handled(contract.routes, routesHandlers),
  ...handled(contract.misses, missesHandlers),
  ...handled(contract.trace, traceHandlers),
  ...handled(contract.clicks, clicksHandlers),
  ...handled(contract.rules, rulesHandlers),
  ...handled(contract.swaps, swapsHandlers),
  ...handled(contract.ledger, ledgerHandlers),
  ...handled(contract.origin, originHandlers),
  ...handled(contract.programs, programsHandlers),
  ...handled(contract.creatives, creativesHandlers),
  ...handled(contract.earnings, earningsHandlers),
  ...handled(contract.history, historyHandlers),
  ...handled(contract.account, accountHandlers),
  ...handled(contract.people, peopleHandlers),
  ...handled(contract.jobs, jobsHandlers),
];
