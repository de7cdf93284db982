import { recogniser } from "../../core/programs/recognise.ts";
import { readTemplate } from "../../core/programs/template.ts";
import { programRows } from "../../store/programs/programs.ts";
import { replaceProgramRoutes, routesAndPrograms } from "../../store/programs/program-routes.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore } from "../ground/parts.ts";

/**
 * Says anew which program these routes lead to, or all of the site's (undefined), and writes what has changed. Routes
 * come by the hundred thousand: a page that is saved looks at none of them.
 */
export async function keepProgramRoutes(
  core: WithStore,
  site: OpenSite,
  only: readonly string[] | undefined,
): Promise<void> {
  if (only?.length === 0) return;
  const [programs, routes] = await Promise.all([
    programRows(core.store, site.id),
    routesAndPrograms(core.store, site.id, only),
  ]);
  const find = recogniser(
    programs.map(({ id, terms }) => {
      const read = readTemplate(terms.template);
      const { name, trackingId, domains } = terms;
      return { id, name, trackingId, domains, template: read.ok ? read.template : undefined };
    }),
  );
  const changed = routes.flatMap(({ route, destination, program, tracking, subId }) => {
    const found = destination === null ? undefined : find(destination);
    const now = {
      program: found?.program.id ?? null,
      tracking: found?.tracking ?? null,
      subId: found?.subId ?? null,
    };
    const isSame = now.program === program && now.tracking === tracking && now.subId === subId;
    return isSame ? [] : [{ route, ...now }];
  });
  await replaceProgramRoutes(core.store, site.id, changed);
}
