import type { Site } from "../../core/sites/site.ts";
import { MATCH_KINDS, MATCH_WORDS } from "../../core/routes/match/match-kind.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { FilterChoice } from "../../ui/filter/FilterChoice.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { HEALTH_WORDS } from "./health-words.ts";
import { ROUTE_COLUMNS } from "./table/columns.tsx";
import { FILTER_NAMES, useRouteFacets } from "./use-route-list.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const STATE_WORDS = {
  on: "on",
  off: say.switchedOff,
  waiting: say.beforeItsTime,
  ended: say.afterItsEnd,
} as const;
const UNUSED = ["30", "90", "180", "365"];

const NARROWS = FILTER_NAMES.filter((name) => name !== "kind");

/** What the table of routes is narrowed by; all of it stands in the screen's address. */
export function RouteFilters({ site, total }: { site: Site; total: number | undefined }) {
  const facets = useRouteFacets(site).data;
  return (
    <FilterBar
      view={
        <ViewChoice
          name="kind"
          label={say.kindOfRoute}
          usual="all"
          options={[
            ["all", say.all],
            ["short", say.shortLinks],
            ["redirect", say.redirects],
            ["gone", say.gone],
          ]}
        />
      }
      search={{ label: say.searchRoutesByAddressDestinationOr, placeholder: say.searchRoutes }}
      narrows={NARROWS}
      found={total === undefined ? undefined : say.routesFound(total)}
      actions={<ColumnChoice of={ROUTE_COLUMNS} />}
      choices={[
        <FilterChoice
          key="host"
          name="host"
          label={say.host}
          every={say.everyHost}
          options={(facets?.hosts ?? []).map(({ host, routes }) => ({
            value: host ?? "*",
            word: host ?? say.forAllHosts,
            note: count(routes),
          }))}
        />,
        <FilterChoice
          key="tag"
          name="tag"
          label={say.tag}
          every={say.anyTag}
          options={(facets?.tags ?? []).map(({ tag, routes }) => ({
            value: tag,
            word: tag,
            note: count(routes),
          }))}
        />,
        <FilterSelect
          key="state"
          name="state"
          label={say.state}
          every={say.anyState}
          options={Object.entries(STATE_WORDS)}
        />,
        <FilterSelect
          key="match"
          name="match"
          label={say.answers}
          every={say.anyMatch}
          options={MATCH_KINDS.map((one) => [one, MATCH_WORDS[one]])}
        />,
        <FilterSelect
          key="health"
          name="health"
          label={say.health}
          every={say.anyHealth}
          options={Object.entries(HEALTH_WORDS)}
        />,
        <FilterSelect
          key="unused"
          name="unused"
          label={say.unused}
          every={say.usedOrNot}
          options={UNUSED.map((days) => [days, say.unusedForDays(days)])}
        />,
      ]}
    />
  );
}
