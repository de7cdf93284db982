import { useQuery } from "@tanstack/react-query";
import { CLICK_GROUPINGS, type ClickGrouping } from "../../core/clicks/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { AddressText } from "../../ui/links/AddressText.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { changeInWords } from "../routes/open/change-in-words.ts";
import { useRouteHistory } from "../routes/use-routes.ts";
import { ClicksChart } from "./ClicksChart.tsx";
import { ClicksTable } from "./ClicksTable.tsx";
import { OthersLately } from "./OthersLately.tsx";
import { ClicksBar } from "./ClicksBar.tsx";
import { MostUsed } from "./MostUsed.tsx";
import { Total } from "./Total.tsx";
import { useClicksAsked } from "./use-clicks-asked.ts";
import { useClicks } from "./use-clicks.ts";
import { asking } from "../../ui/client/queries.ts";
import { messageOf } from "../../ui/client/api.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** Clicks of the whole site or of one route; robots, prefetches and HEAD requests apart. */
export function ClicksScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Clicks site={site} />
    </Screen>
  );
}

function Clicks({ site }: { site: Site }) {
  const [, setRoute] = useAddressState("route");
  const [view] = useAddressState("view");
  const [grouping] = useAddressState("by");
  const [compare] = useAddressState("compare");
  const asked = useClicksAsked();
  const { span, from, to, route: routeId } = asked;
  const by = (CLICK_GROUPINGS as readonly string[]).includes(grouping) ? (grouping as ClickGrouping) : "day";
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
  return (
    <div className="grid gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-labelledby="days" className="min-w-0">
        <div className="flex flex-wrap items-center gap-3">
          <h1 id="days" className="text-lg font-semibold">
            {say.clicks}
          </h1>
          {routeId && route.data ? (
            <>
              <a href={`/${site.key}/routes?open=${routeId}`} className="hover:underline">
                <AddressText address={route.data.url} />
              </a>
              <button className="action" onClick={() => setRoute("")}>
                {say.allRoutes}
              </button>
            </>
          ) : (
            <span className="text-quiet">{say.onAllRoutesOf(site.name)}</span>
          )}
        </div>
        <ClicksBar site={site} by={by} />
        {clicks.isError ? <p className="text-bad">{messageOf(clicks.error)}</p> : null}
        {route.isError ? <p className="text-bad">{messageOf(route.error)}</p> : null}
        {answer ? <Total answer={answer} route={route.data} /> : <p className="text-quiet">{say.counting}</p>}
        {answer && answer.lost > 0 ? (
          <p role="status" className="mt-1 text-warn">
            {say.ofTheseDaysOfAllSitesTogether(
              answer.lost === 1 ? say.oneRequest : say.requests(count(answer.lost)),
            )}
          </p>
        ) : null}
        {answer && answer.items.length === 0 ? (
          <p className="py-10 text-center text-quiet">{say.nothingWasCountedInTheseDays}</p>
        ) : null}
        {answer && answer.items.length > 0 && view !== "table" ? (
          <ClicksChart answer={answer} marks={marks} />
        ) : null}
        {answer && answer.items.length > 0 && view === "table" ? (
          <ClicksTable answer={answer} onRoute={setRoute} />
        ) : null}
        {marks.length > 0 && by === "day" ? (
          <ol aria-label={say.changesInTheseDays} className="mt-2 text-sm text-quiet">
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
