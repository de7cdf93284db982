import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import type { ClicksAnswer } from "../../core/objects/clicks.ts";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { AddressText } from "../../ui/AddressText.tsx";
import { api, messageOf } from "../../ui/api.ts";
import { Choice } from "../../ui/Choice.tsx";
import { Screen } from "../../ui/Screen.tsx";
import { useAddressState } from "../../ui/url-state.ts";
import { ClicksTable } from "./ClicksTable.tsx";
import { useClicks } from "./use-clicks.ts";

const DaysChart = lazy(() => import("./ClicksChart.tsx").then((module) => ({ default: module.DaysChart })));

/** Clicks per day, of the whole site or of one route; robots, prefetches and HEAD requests apart. */
export function ClicksScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Clicks site={site} />
    </Screen>
  );
}

function Clicks({ site }: { site: Site }) {
  const [routeId, setRoute] = useAddressState("route");
  const [view, setView] = useAddressState("view");
  const [span, setSpan] = useState(60);
  const days = useClicks(site, { by: "day", span, route: routeId });
  const routes = useClicks(site, { by: "route", span });
  const route = useQuery({
    queryKey: ["route", site.id, routeId],
    queryFn: () => api<Route>("GET", `/sites/${site.id}/routes/${routeId}`),
    enabled: routeId !== "",
  });
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-labelledby="days" className="min-w-0">
        <div className="flex flex-wrap items-center gap-3">
          <h1 id="days" className="text-lg font-semibold">
            Clicks per day
          </h1>
          {routeId && route.data ? (
            <>
              <AddressText address={route.data.url} />
              <button className="action" onClick={() => setRoute("")}>
                All routes
              </button>
            </>
          ) : (
            <span className="text-quiet">on all routes of {site.name}</span>
          )}
          <div className="ml-auto flex gap-2">
            <Choice
              label="Days"
              value={String(span)}
              options={["14", "60", "365"].map((value) => ({ value, word: `${value} days` }))}
              onChange={(value) => setSpan(Number(value))}
            />
            <Choice
              label="Shown as"
              value={view || "chart"}
              options={[
                { value: "chart", word: "Chart" },
                { value: "table", word: "Table" },
              ]}
              onChange={(value) => setView(value === "chart" ? "" : value)}
            />
          </div>
        </div>
        {days.isError ? <p className="text-bad">{messageOf(days.error)}</p> : null}
        {route.isError ? <p className="text-bad">{messageOf(route.error)}</p> : null}
        {days.data ? <Total answer={days.data} /> : <p className="text-quiet">Counting…</p>}
        {days.data && view !== "table" ? (
          <Suspense fallback={<div className="h-96" />}>
            <DaysChart answer={days.data} />
          </Suspense>
        ) : null}
        {days.data && view === "table" ? <ClicksTable answer={days.data} /> : null}
      </section>
      <section aria-labelledby="routes">
        <h2 id="routes" className="mb-1 font-semibold">
          Most used
        </h2>
        {routes.data?.items.length === 0 ? (
          <p className="text-quiet">No route has been used in these days.</p>
        ) : null}
        <ol>
          {routes.data?.items.slice(0, 20).map((row) => (
            <li key={row.key} className="border-b border-line/60">
              <button
                aria-pressed={row.key === routeId}
                className={`flex w-full items-baseline gap-2 px-1 py-1 text-left ${row.key === routeId ? "bg-wash" : "hover:bg-sheet"}`}
                onClick={() => setRoute(row.key === routeId ? "" : row.key)}
              >
                <span className="truncate font-mono text-[0.86em]">{row.label}</span>
                <span className="ml-auto tabular-nums">{row.clicks.toLocaleString("en-GB")}</span>
              </button>
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

function Total({ answer: { total } }: { answer: ClicksAnswer }) {
  const number = (value: number): string => value.toLocaleString("en-GB");
  return (
    <p className="mt-1 mb-2">
      <strong>{number(total.clicks)}</strong> clicks by persons, {number(total.visitors)} visitors counted
      once a day and route.{" "}
      <span className="text-quiet">
        Apart: {number(total.bots)} by robots, {number(total.prefetches)} prefetches, {number(total.heads)}{" "}
        HEAD requests.
      </span>
    </p>
  );
}
