import type { Site } from "../../core/sites/site.ts";
import { MATCH_KINDS, MATCH_WORDS } from "../../core/routes/match/match-kind.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { FilterSelect } from "../../ui/fields/FilterSelect.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { useSearchKey } from "../../ui/keys/use-search-key.ts";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { ROUTE_COLUMNS } from "./table/column-names.ts";
import { FILTER_NAMES, useRouteFacets } from "./use-route-list.ts";

export const HEALTH_WORDS: Readonly<Record<string, string>> = {
  bad: "answers badly",
  fine: "answers well",
  slow: "slow",
  chain: "through another route",
  loop: "goes in circles",
  dead: "dead",
  failing: "failing",
  unreachable: "unreachable",
  unknown: "not looked at yet",
};

const STATE_WORDS = {
  on: "on",
  off: "switched off",
  waiting: "before its time",
  ended: "after its end",
} as const;
const UNUSED = ["30", "90", "180", "365"];

/** What the table of routes is narrowed by; all of it stands in the screen's address. */
export function RouteFilters({ site, total }: { site: Site; total: number | undefined }) {
  const [q, setQ] = useAddressState("q");
  const [kind] = useAddressState("kind");
  const facets = useRouteFacets(site).data;
  const search = useSearchKey();
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <Choice
        label="Kind of route"
        value={kind || "all"}
        options={[
          { value: "all", word: "All" },
          { value: "short", word: "Short links" },
          { value: "redirect", word: "Redirects" },
          { value: "gone", word: "Gone" },
        ]}
        onChange={(value) => setAddressState({ kind: value === "all" ? "" : value })}
      />
      <input
        ref={search}
        className="field max-w-52"
        type="search"
        aria-label="Search routes by address, destination or title"
        aria-keyshortcuts="f"
        placeholder="Search routes   ( f )"
        value={q}
        onChange={(event) => setQ(event.target.value)}
      />
      <FilterSelect
        name="host"
        label="Host"
        every="every host"
        options={(facets?.hosts ?? []).map(({ host, routes }) => [
          host ?? "*",
          `${host ?? "for all hosts"} (${routes})`,
        ])}
      />
      <FilterSelect
        name="tag"
        label="Tag"
        every="any tag"
        options={(facets?.tags ?? []).map(({ tag, routes }) => [tag, `${tag} (${routes})`])}
      />
      <FilterSelect name="state" label="State" every="any state" options={Object.entries(STATE_WORDS)} />
      <FilterSelect
        name="match"
        label="Answers"
        every="any match"
        options={MATCH_KINDS.map((one) => [one, MATCH_WORDS[one]])}
      />
      <FilterSelect name="health" label="Health" every="any health" options={Object.entries(HEALTH_WORDS)} />
      <FilterSelect
        name="unused"
        label="Unused"
        every="used or not"
        options={UNUSED.map((days) => [days, `unused for ${days} days`])}
      />
      <ClearFilters />
      <span className="text-sm text-quiet" aria-live="polite">
        {total === undefined ? "" : `${total.toLocaleString("en-GB")} ${total === 1 ? "route" : "routes"}`}
      </span>
      <span className="ml-auto">
        <ColumnChoice of={ROUTE_COLUMNS} />
      </span>
    </div>
  );
}

function ClearFilters() {
  const set = FILTER_NAMES.filter(
    (name) => name !== "kind" && new URLSearchParams(location.search).has(name),
  );
  useAddressState("host");
  if (set.length === 0) return null;
  return (
    <button
      type="button"
      className="text-sm text-accent underline"
      onClick={() => setAddressState(Object.fromEntries(FILTER_NAMES.map((name) => [name, ""])))}
    >
      show all
    </button>
  );
}
