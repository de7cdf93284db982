import { useQuery } from "@tanstack/react-query";
import { Copy, ExternalLink, Footprints } from "lucide-react";
import type { Route } from "../../../core/routes/route.ts";
import { isBadHealth } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { whenSeen } from "../../../ui/frame/later.tsx";
import { useTitle } from "../../../ui/frame/use-title.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import { RouteForm } from "../form/RouteForm.tsx";
import { useDeleteRoute, useResetCount } from "../use-routes.ts";
import { RouteChanges } from "./RouteChanges.tsx";
import { ShareRoute } from "./ShareRoute.tsx";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { count, when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

// The chart library is the heaviest thing on this screen; it comes when a route is opened.
const ClicksChart = whenSeen(
  async () => (await import("../../clicks/RouteClicks.tsx")).RouteClicks,
  () => <div className="h-28" />,
);

/** One route: what is done with it, its clicks, how it is said and scanned, its settings, who changed it. */
export function OpenRoute({ site, id }: { site: Site; id: string }) {
  const found = useQuery({
    ...asking("GET /sites/:site/routes/:id", { site: site.id, id }),
    refetchInterval: 4_000,
  });
  useTitle(found.data?.address);
  const remove = useDeleteRoute(site);
  const zero = useResetCount(site);
  if (found.isError) return <p className="text-bad">{messageOf(found.error)}</p>;
  const route = found.data;
  if (!route) return <p className="text-quiet">{say.fetchingTheRoute}</p>;
  return (
    <>
      <h2 className="pr-6 text-lg leading-tight">
        <AddressText address={route.url} most={80} />
      </h2>
      <div className="mt-2 mb-3 flex flex-wrap gap-2">
        <button className="action" onClick={() => void copyText(route.url)}>
          <Copy size={14} aria-hidden /> {say.copy}
        </button>
        {route.match === "exact" ? (
          <a className="action" href={route.url} target="_blank" rel="noopener">
            {say.open2} <ExternalLink size={14} aria-hidden />
          </a>
        ) : null}
        <a
          className="action"
          href={`/${site.key}/trace?of=${encodeURIComponent(route.match === "exact" ? route.url : "")}`}
        >
          {say.trace} <Footprints size={14} aria-hidden />
        </a>
        <button
          data-needs="editor"
          className="action action-plain ml-auto text-bad"
          onClick={() => remove.mutate(route)}
        >
          {say.deleteWord}
        </button>
      </div>
      <Health route={route} />
      <p className="mb-1 text-sm">
        <strong data-testid="click-count">{count(route.clicks)}</strong>{" "}
        {say.clicksByPeople(route.countedFrom ? say.since(when(route.countedFrom)) : "")}{" "}
        <a className="text-accent underline" href={`/${site.key}/clicks?route=${route.id}`}>
          {say.allAboutThem}
        </a>{" "}
        <button
          data-needs="editor"
          className="text-accent underline"
          onClick={() => zero.mutate({ route, on: route.countedFrom === null })}
        >
          {route.countedFrom ? say.countFromTheBeginning : say.resetTheCount}
        </button>
      </p>
      <ClicksChart site={site} routeId={route.id} />
      {route.match === "exact" ? <ShareRoute route={route} /> : null}
      <hr className="my-3 border-line" />
      <RouteForm
        key={`${route.id} ${route.version}`}
        site={site}
        kind={route.kind}
        route={route}
        start={{ destination: "", address: "" }}
        onSaved={() => undefined}
      />
      <RouteChanges site={site} id={route.id} />
    </>
  );
}

function Health({ route: { health } }: { route: Route }) {
  if (!health || health.verdict === "fine") return null;
  return (
    <p className={`mb-2 text-sm ${isBadHealth(health.verdict) ? "text-bad" : "text-warn"}`}>
      {say.itsDestination(health.note, when(health.checkedAt))}
    </p>
  );
}
