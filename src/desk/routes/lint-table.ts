import { lintRoutes } from "../../core/routes/lint.ts";
import { closestAddresses, closestMatch } from "../../core/misses/closest.ts";
import { knownAddresses } from "../misses/known-addresses.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { LintFinding } from "../../core/routes/linted.ts";
import type { WithStore, WithDeliveryPort } from "../ground/parts.ts";
import { routesToLint } from "../../store/routes/lint.ts";
import { publishedTitles } from "../../store/pages/places.ts";
import { filePaths } from "../../store/files/files.ts";

const MAX_REPAIRED = 200;

/** What is to be said of the whole table of switched-on routes, gravest first. */
export async function lintTable(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<{ findings: LintFinding[]; routes: number }> {
  const { store } = desk;
  const [rows, pages, files, known] = await Promise.all([
    routesToLint(store, { site: site.id }),
    publishedTitles(store, { site: site.id }),
    filePaths(store, {
      site: site.id,
    }),
    knownAddresses(desk, site),
  ]);
  const titles = new Map(pages.map(({ key, title }) => [key, title]));
  const paths = new Set(files.map(({ path }) => path));
  let repaired = 0;
  const findings = lintRoutes(
    rows.map(({ bad, ...route }) => ({ ...route, ...(bad ? { answersBadly: bad } : {}) })),
    {
      hosts: site.hostNames,
      primary: site.primary,
      pageAt: (key) => titles.get(key),
      hasFile: (key) => paths.has(key),
      // Looking for what was meant compares with every address: the first dead ends are enough for one reading.
      closest: (key) =>
        (repaired += 1) > MAX_REPAIRED
          ? undefined
          : closestMatch(closestAddresses(key, known.get(site.primary) ?? [], 2))?.address,
    },
  );
  const gravity = { error: 0, warning: 1, hint: 2 };
  return {
    findings: findings.sort((a, b) => gravity[a.severity] - gravity[b.severity]),
    routes: rows.length,
  };
}
