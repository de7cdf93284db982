import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Miss } from "../../core/objects/miss.ts";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { api, messageOf, queries, type ListOf } from "../../ui/api.ts";
import { Screen } from "../../ui/Screen.tsx";
import { SortHead } from "../../ui/SortHead.tsx";
import { tell } from "../../ui/notices.ts";
import { useAddressState } from "../../ui/url-state.ts";
import { when } from "../../ui/when.ts";

/** Addresses that readers asked for and nothing answers, each with what they may have meant. */
export function MissesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Misses site={site} />
    </Screen>
  );
}

function Misses({ site }: { site: Site }) {
  const [sort, setSort] = useAddressState("sort");
  const order = sort || "-lastSeen";
  const misses = useInfiniteQuery({
    queryKey: ["misses", site.id, order],
    queryFn: ({ pageParam }) =>
      api<ListOf<Miss>>(
        "GET",
        `/sites/${site.id}/misses?${new URLSearchParams({ sort: order, cursor: pageParam })}`,
      ),
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    refetchInterval: 6_000,
  });
  const items = misses.data?.pages.flatMap((page) => page.items) ?? [];
  const head = { sort: order, setSort };
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <h1 className="text-lg font-semibold">Misses</h1>
        <span className="text-sm text-quiet">
          {misses.data ? `${misses.data.pages[0]!.total} addresses that nothing answers` : ""}
        </span>
        <a className="ml-auto text-accent hover:underline" href={`/${site.key}/routes`}>
          Back to routes
        </a>
      </div>
      {misses.isError ? <p className="text-bad">{messageOf(misses.error)}</p> : null}
      {misses.isSuccess && items.length === 0 ? (
        <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
          <p className="font-medium">Nobody has missed anything.</p>
          <p className="text-quiet">
            When a reader asks for an address that nothing answers, it stands here, to be answered with a
            redirect.
          </p>
        </div>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full border-collapse text-left">
            <thead className="text-sm text-quiet">
              <tr className="border-b border-line">
                <SortHead field="address" {...head}>
                  Asked for
                </SortHead>
                <SortHead field="times" {...head}>
                  Times
                </SortHead>
                <SortHead field="lastSeen" {...head}>
                  Last
                </SortHead>
                <th scope="col" className="py-1.5 pr-3 font-medium max-md:hidden">
                  Came from
                </th>
                <th scope="col" className="py-1.5 font-medium">
                  Answer it with
                </th>
              </tr>
            </thead>
            <tbody>
              {items.map((miss) => (
                <MissRow key={miss.id} site={site} miss={miss} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      {misses.hasNextPage ? (
        <button className="action mt-3 self-start" onClick={() => void misses.fetchNextPage()}>
          Show more
        </button>
      ) : null}
    </>
  );
}

function MissRow({ site, miss }: { site: Site; miss: Miss }) {
  const [own, setOwn] = useState("");
  const answer = useMutation({
    mutationFn: (destination: string) =>
      api<{ route: Route }>("POST", `/sites/${site.id}/misses/${miss.id}/resolve`, { destination }),
    onSuccess: ({ route }) => {
      void queries.invalidateQueries({ queryKey: ["misses"] });
      tell(`${route.address} now leads to ${route.destination}`, {
        undo: () => void api("DELETE", `/sites/${site.id}/routes/${route.id}`),
      });
    },
  });
  return (
    <tr className="border-b border-line/60 align-top hover:bg-sheet">
      <td className="min-w-40 py-1.5 pr-3 font-mono text-[0.86em] break-all">
        <span className="text-quiet">{miss.host === site.hosts[0]?.name ? "" : miss.host}</span>
        {miss.address}
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap tabular-nums">
        {miss.times}
        {miss.bots > 0 ? <span className="text-sm text-quiet"> and {miss.bots} by robots</span> : null}
      </td>
      <td className="py-1.5 pr-3 text-sm whitespace-nowrap text-quiet">{when(miss.lastSeen)}</td>
      <td className="max-w-56 truncate py-1.5 pr-3 text-sm text-quiet max-md:hidden">
        {miss.referrers[0] ?? "unknown"}
      </td>
      <td className="py-1.5">
        <form
          className="flex flex-wrap gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            answer.mutate(own);
          }}
        >
          {miss.candidates.map((candidate) => (
            <button
              key={candidate.address}
              type="button"
              className="action py-0.5 font-mono text-xs"
              title={candidate.title}
              disabled={answer.isPending}
              onClick={() => answer.mutate(candidate.destination ?? candidate.address)}
            >
              {candidate.address}
            </button>
          ))}
          <input
            className="field w-36 py-0.5 font-mono text-xs"
            aria-label={`Answer ${miss.address} with another destination`}
            placeholder="another destination"
            value={own}
            onChange={(event) => setOwn(event.target.value)}
          />
          {own.trim() ? <button className="action py-0.5">Answer</button> : null}
        </form>
        {answer.isError ? <p className="mt-1 text-sm text-bad">{messageOf(answer.error)}</p> : null}
      </td>
    </tr>
  );
}
