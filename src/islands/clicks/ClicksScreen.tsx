import { useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import { lazy, Suspense } from "react";
import { CLICK_GROUPINGS, type ClickGrouping, type ClicksAnswer } from "../../core/clicks/clicks.ts";
import type { Route } from "../../core/routes/route.ts";
import type { Site } from "../../core/sites/site.ts";
import { AddressText } from "../../ui/links/AddressText.tsx";
import { Choice } from "../../ui/fields/Choice.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { changeInWords } from "../routes/open/change-in-words.ts";
import { useRouteHistory } from "../routes/use-routes.ts";
import { ClicksTable } from "./ClicksTable.tsx";
import { OthersLately } from "./OthersLately.tsx";
import { spanOf, useClicks } from "./use-clicks.ts";
import { asking } from "../../ui/client/queries.ts";
import { hrefOf, messageOf } from "../../ui/client/api.ts";

const ClicksChart = lazy(() =>
  import("./ClicksChart.tsx").then((module) => ({ default: module.ClicksChart })),
);

const WORDS: Readonly<Record<ClickGrouping, string>> = {
  day: "Day",
  hour: "Hour",
  route: "Route",
  page: "Page",
  referrer: "Came from",
  device: "Device",
  program: "Program",
};
const SHOWN = CLICK_GROUPINGS;

/** Clicks of the whole site or of one route; robots, prefetches and HEAD requests apart. */
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
  const [grouping] = useAddressState("by");
  const [days] = useAddressState("days");
  const [from] = useAddressState("from");
  const [to] = useAddressState("to");
  const [compare] = useAddressState("compare");
  const by = (SHOWN as readonly string[]).includes(grouping) ? (grouping as ClickGrouping) : "day";
  const span = Number(days) || 60;
  const asked = { span, from, to, route: routeId };
  const clicks = useClicks(site, { ...asked, by, compare: compare === "1" });
  const routes = useClicks(site, { span, from, to, by: "route" });
  const route = useQuery({
    ...asking("GET /sites/:site/routes/:id", { site: site.id, id: routeId }),
    enabled: routeId !== "",
  });
  const history = useRouteHistory(site, routeId, routeId !== "");
  const marks = (routeId ? (history.data?.items ?? []) : [])
    .map((one) => ({ key: one.at.slice(0, 10), name: changeInWords(one) }))
    .filter(({ key }) => clicks.data?.items.some((row) => row.key === key));
  const answer = clicks.data?.by === by ? clicks.data : undefined;
  const exported = { by, ...spanOf(asked), ...(routeId ? { route: routeId } : {}) };
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-labelledby="days" className="min-w-0">
        <div className="flex flex-wrap items-center gap-3">
          <h1 id="days" className="text-lg font-semibold">
            Clicks
          </h1>
          {routeId && route.data ? (
            <>
              <a href={`/${site.key}/routes?open=${routeId}`} className="hover:underline">
                <AddressText address={route.data.url} />
              </a>
              <button className="action" onClick={() => setRoute("")}>
                All routes
              </button>
            </>
          ) : (
            <span className="text-quiet">on all routes of {site.name}</span>
          )}
        </div>
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Choice
            label="Counted by"
            value={by}
            options={SHOWN.filter((one) => !routeId || one !== "route").map((value) => ({
              value,
              word: WORDS[value],
            }))}
            onChange={(value) => setAddressState({ by: value === "day" ? "" : value })}
          />
          <Choice
            label="Days"
            value={from || to ? "chosen" : String(span)}
            options={["14", "60", "365"].map((value) => ({ value, word: `${value} days` }))}
            onChange={(value) => setAddressState({ days: value === "60" ? "" : value, from: "", to: "" })}
          />
          <label className="flex items-center gap-1 text-sm text-quiet">
            from
            <input
              type="date"
              className="field w-auto py-0.5"
              value={from}
              onChange={(event) => setAddressState({ from: event.target.value })}
            />
          </label>
          <label className="flex items-center gap-1 text-sm text-quiet">
            to
            <input
              type="date"
              className="field w-auto py-0.5"
              value={to}
              onChange={(event) => setAddressState({ to: event.target.value })}
            />
          </label>
          <label className="flex items-center gap-1.5 text-sm">
            <input
              type="checkbox"
              checked={compare === "1"}
              onChange={(event) => setAddressState({ compare: event.target.checked ? "1" : "" })}
            />
            with the period before
          </label>
          <span className="ml-auto flex gap-2">
            <Choice
              label="Shown as"
              value={view || "chart"}
              options={[
                { value: "chart", word: "Chart" },
                { value: "table", word: "Table" },
              ]}
              onChange={(value) => setView(value === "chart" ? "" : value)}
            />
            <a
              className="action py-1 text-sm"
              href={hrefOf("GET /sites/:site/clicks/export", { site: site.id, query: exported })}
              download
            >
              <Download size={14} aria-hidden /> CSV
            </a>
          </span>
        </div>
        {clicks.isError ? <p className="text-bad">{messageOf(clicks.error)}</p> : null}
        {route.isError ? <p className="text-bad">{messageOf(route.error)}</p> : null}
        {answer ? <Total answer={answer} route={route.data} /> : <p className="text-quiet">Counting…</p>}
        {answer && answer.lost > 0 ? (
          <p role="status" className="mt-1 text-warn">
            {answer.lost === 1 ? "One request" : `${answer.lost.toLocaleString("en-GB")} requests`} of these
            days, of all sites together, could not be kept: the disk did not take them, or they cannot be
            read. Readers were led on all the same.
          </p>
        ) : null}
        {answer && answer.items.length === 0 ? (
          <p className="py-10 text-center text-quiet">Nothing was counted in these days.</p>
        ) : null}
        {answer && answer.items.length > 0 && view !== "table" ? (
          <Suspense fallback={<div className="h-96" />}>
            <ClicksChart answer={answer} marks={marks} />
          </Suspense>
        ) : null}
        {answer && answer.items.length > 0 && view === "table" ? (
          <ClicksTable answer={answer} onRoute={setRoute} />
        ) : null}
        {marks.length > 0 && by === "day" ? (
          <ol aria-label="Changes in these days" className="mt-2 text-sm text-quiet">
            {marks.map(({ key, name }) => (
              <li key={key + name}>
                {key}: {name}
              </li>
            ))}
          </ol>
        ) : null}
        <OthersLately site={site} asked={asked} />
      </section>
      <MostUsed rows={routes.data} routeId={routeId} onPick={(id) => setRoute(id === routeId ? "" : id)} />
    </div>
  );
}

function MostUsed(props: { rows: ClicksAnswer | undefined; routeId: string; onPick: (id: string) => void }) {
  const { rows, routeId, onPick } = props;
  return (
    <section aria-labelledby="routes">
      <h2 id="routes" className="mb-1 font-semibold">
        Most used
      </h2>
      {rows?.items.length === 0 ? <p className="text-quiet">No route has been used in these days.</p> : null}
      <ol>
        {rows?.items.slice(0, 20).map((row) => (
          <li key={row.key} className="border-b border-line/60">
            <button
              aria-pressed={row.key === routeId}
              className={`flex w-full items-baseline gap-2 px-1 py-1 text-left ${row.key === routeId ? "bg-wash" : "hover:bg-sheet"}`}
              onClick={() => onPick(row.key)}
            >
              <span className="truncate font-mono text-[0.86em]">{row.label}</span>
              <span className="ml-auto tabular-nums">{row.clicks.toLocaleString("en-GB")}</span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

function Total({ answer: { total, before }, route }: { answer: ClicksAnswer; route: Route | undefined }) {
  const number = (value: number): string => value.toLocaleString("en-GB");
  return (
    <p className="mt-1 mb-2">
      <strong>{number(total.clicks)}</strong> clicks by persons, {number(total.visitors)} visitors counted
      once a day
      {before ? (
        <>
          ; {number(before.total.clicks)} in the period before (
          {difference(total.clicks, before.total.clicks)})
        </>
      ) : null}
      .{" "}
      <span className="text-quiet">
        Apart: {number(total.bots)} by robots, {number(total.prefetches)} prefetches, {number(total.heads)}{" "}
        HEAD requests.
        {total.asides > 0 ? ` ${number(total.asides)} times a route stood aside.` : ""}
        {route?.countedFrom ? ` Since its new zero: ${number(route.clicks)}.` : ""}
      </span>
    </p>
  );
}

function difference(now: number, before: number): string {
  if (before === 0) return now === 0 ? "the same" : "none then";
  const percent = Math.round(((now - before) / before) * 100);
  return percent === 0 ? "the same" : `${percent > 0 ? "+" : "−"}${Math.abs(percent)} %`;
}
