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

const STATE_WORDS = {
  on: "on",
  off: "switched off",
  waiting: "before its time",
  ended: "after its end",
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
          label="Kind of route"
          usual="all"
          options={[
            ["all", "All"],
            ["short", "Short links"],
            ["redirect", "Redirects"],
            ["gone", "Gone"],
          ]}
        />
      }
      search={{ label: "Search routes by address, destination or title", placeholder: "Search routes" }}
      narrows={NARROWS}
      found={total === undefined ? undefined : `${count(total)} ${total === 1 ? "route" : "routes"}`}
      actions={<ColumnChoice of={ROUTE_COLUMNS} />}
      choices={[
        <FilterChoice
          key="host"
          name="host"
          label="Host"
          every="every host"
          options={(facets?.hosts ?? []).map(({ host, routes }) => ({
            value: host ?? "*",
            word: host ?? "for all hosts",
            note: count(routes),
          }))}
        />,
        <FilterChoice
          key="tag"
          name="tag"
          label="Tag"
          every="any tag"
          options={(facets?.tags ?? []).map(({ tag, routes }) => ({
            value: tag,
            word: tag,
            note: count(routes),
          }))}
        />,
        <FilterSelect
          key="state"
          name="state"
          label="State"
          every="any state"
          options={Object.entries(STATE_WORDS)}
        />,
        <FilterSelect
          key="match"
          name="match"
          label="Answers"
          every="any match"
          options={MATCH_KINDS.map((one) => [one, MATCH_WORDS[one]])}
        />,
        <FilterSelect
          key="health"
          name="health"
          label="Health"
          every="any health"
          options={Object.entries(HEALTH_WORDS)}
        />,
        <FilterSelect
          key="unused"
          name="unused"
          label="Unused"
          every="used or not"
          options={UNUSED.map((days) => [days, `unused for ${days} days`])}
        />,
      ]}
    />
  );
}
