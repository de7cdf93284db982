import { inFigures } from "../../core/text/in-figures.ts";
import type { RuleBundle } from "../../core/rules/sets/bundle.ts";
import { leadingRoutes } from "../../store/routes/leading-routes.ts";
import { Problem } from "../ground/problem.ts";
import { currentRules } from "./rules.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

/** So many routes go into a file; who has more asks the site itself. */
const MAX_ROUTES = 100_000;

/** The rules in force with the hosts, programs and routes that they look at. Throws a Problem (422) for too many routes. */
export async function bundleRules(desk: WithStore, site: OpenSite): Promise<RuleBundle> {
  const [{ rules }, routes] = await Promise.all([
    currentRules(desk, site),
    leadingRoutes(desk.store, site.id, MAX_ROUTES + 1),
  ]);
  if (routes.length > MAX_ROUTES)
    throw new Problem(
      422,
      "Too many routes for a file",
      `This site has more than ${inFigures(MAX_ROUTES)} routes. Use “maprope rewrite --site ${site.key}”, which asks the site itself.`,
    );
  return {
    rules,
    hosts: [site.primary, ...site.hostNames.filter((host) => host !== site.primary)],
    partners: site.partners,
    routes: routes.map(({ caseInsensitive, ...route }) => ({ ...route, folded: caseInsensitive })),
  };
}
