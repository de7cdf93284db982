import { blocks } from "./blocks.ts";
import { clicks } from "./clicks.ts";
import { creatives } from "./creatives.ts";
import { earnings } from "./earnings.ts";
import { files } from "./files.ts";
import { history } from "./history.ts";
import { jobs } from "./jobs.ts";
import { ledger } from "./ledger.ts";
import { links } from "./links.ts";
import { misses } from "./misses.ts";
import { navigation } from "./navigation.ts";
import { origin } from "./origin.ts";
import { pages } from "./pages.ts";
import { account } from "./account.ts";
import { people } from "./people.ts";
import { programs } from "./programs.ts";
import { routes } from "./routes.ts";
import { rules } from "./rules.ts";
import { sites } from "./sites.ts";
import { swaps } from "./swaps.ts";
import { trace } from "./trace.ts";

/** Every call of the API by subject and name, in the order of the documentation. */
export const contract = {
  sites,
  pages,
  blocks,
  navigation,
  files,
  links,
  routes,
  misses,
  trace,
  clicks,
  rules,
  swaps,
  ledger,
  origin,
  programs,
  creatives,
  earnings,
  history,
  account,
  people,
  jobs,
};

type Calls = {
  [S in keyof typeof contract]: (typeof contract)[S][keyof (typeof contract)[S]];
}[keyof typeof contract];

/** The calls by “METHOD path”, as a client names them: of types alone, so that no schema need be sent to a browser. */
export type CallsByName = { [C in Calls as `${C["method"]} ${C["path"]}`]: C };
