import { useInfiniteQuery, useQuery } from "@tanstack/react-query";
import type { MissGroup } from "../../core/misses/miss.ts";
import type { Site } from "../../core/sites/site.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { MissesTable } from "./MissesTable.tsx";
import { MissPolicyForm } from "./MissPolicyForm.tsx";
import { Proposals } from "./Proposals.tsx";
import { asking, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { count, moment } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** Addresses that readers asked for and nothing answers, each with what they may have meant. */
export function MissesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="misses" />
      <Misses site={site} />
    </Screen>
  );
}

const GROUP_WORDS = { people: say.people, robots: say.robotsOnly, scanners: say.scanners } as const;

function Misses({ site }: { site: Site }) {
  const [sort, setSort] = useAddressState("sort");
  const [group] = useAddressState("group");
  const [q] = useAddressState("q");
  const [ignored, setIgnored] = useAddressState("ignored");
  const order = sort || "-lastSeen";
  const who = (group || "people") as MissGroup;
  const search = useDebounced(q, 200);
  const query = {
    sort: order,
    group: who,
    ...(search ? { q: search } : {}),
    ...(ignored ? { ignored: "1" } : {}),
  };
  const misses = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/misses", { site: site.id, query }),
    queryFn: ({ pageParam }) =>
      api("GET /sites/:site/misses", { site: site.id, query: { ...query, cursor: pageParam } }),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
    refetchInterval: 6_000,
  });
  const summary = useQuery({
    ...asking("GET /sites/:site/misses/summary", { site: site.id }),
    refetchInterval: 15_000,
  });
  const items = misses.data?.pages.flatMap((page) => page.items) ?? [];
  const counts = summary.data?.groups;
  return (
    <div className="grid items-start gap-6 grid-cols-[minmax(0,1fr)] xl:grid-cols-[minmax(0,1fr)_22rem]">
      <div className="min-w-0">
        <FilterBar
          view={
            <ViewChoice
              name="group"
              label={say.whoAsked}
              usual="people"
              options={(["people", "robots", "scanners"] as const).map((one) => [
                one,
                `${GROUP_WORDS[one]}${counts ? ` ${count(counts[one])}` : ""}`,
              ])}
            />
          }
          search={{ label: say.searchMissesByAPartOfThe, placeholder: say.searchMisses }}
          found={
            misses.data ? `${count(misses.data.pages[0]!.total)} addresses that nothing answers` : undefined
          }
        >
          <label className="flex items-center gap-1.5 text-sm">
            <input
              type="checkbox"
              checked={ignored === "1"}
              onChange={(event) => setIgnored(event.target.checked ? "1" : "")}
            />
            {say.ignored}
          </label>
        </FilterBar>
        {summary.data?.letGo ? (
          <p className="mb-2 text-sm text-warn">
            {say.addressesThatWereAskedForOnceFrom(
              count(summary.data.letGo.misses),
              moment(summary.data.letGo.lastAt),
            )}
          </p>
        ) : null}
        {misses.isError ? <p className="text-bad">{messageOf(misses.error)}</p> : null}
        {who === "people" && !ignored && summary.data ? (
          <Proposals site={site} proposals={summary.data.proposals} />
        ) : null}
        {misses.isSuccess && items.length === 0 ? (
          <Empty group={who} searching={search !== "" || ignored !== ""} />
        ) : (
          <MissesTable site={site} misses={items} sort={order} setSort={setSort} setAside={ignored === "1"} />
        )}
        {misses.hasNextPage ? (
          <button className="action mt-3 self-start" onClick={() => void misses.fetchNextPage()}>
            {say.showMore}
          </button>
        ) : null}
      </div>
      <MissPolicyForm site={site} hidden={summary.data?.hidden} />
    </div>
  );
}

function Empty({ group, searching }: { group: MissGroup; searching: boolean }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">
        {searching
          ? say.nothingHereFits
          : group === "people"
            ? say.nobodyHasMissedAnything
            : say.nothingOfThisKindWasAskedFor}
      </p>
      <p className="text-quiet">{say.whenAReaderAsksForAnAddress}</p>
    </div>
  );
}
