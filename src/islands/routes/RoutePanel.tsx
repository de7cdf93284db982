import { useQuery } from "@tanstack/react-query";
import { Copy, ExternalLink, X } from "lucide-react";
import { lazy, Suspense } from "react";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { AddressText } from "../../ui/AddressText.tsx";
import { api, messageOf } from "../../ui/api.ts";
import { copyText } from "../../ui/copy.ts";
import { setAddressState, useAddressState } from "../../ui/url-state.ts";
import { RouteForm } from "./RouteForm.tsx";
import { useDeleteRoute } from "./use-routes.ts";

// The chart library is the heaviest thing on this screen; it comes when a route is opened.
const ClicksChart = lazy(() =>
  import("../clicks/ClicksChart.tsx").then((module) => ({ default: module.RouteClicks })),
);

/** Beside the table: a new route, or the one that was opened. */
export function RoutePanel({ site, open }: { site: Site; open: string }) {
  const [to] = useAddressState("to");
  const close = (): void => setAddressState({ open: "", to: "" });
  const kind = open === "new-short" ? "short" : open === "new-redirect" ? "redirect" : undefined;
  return (
    <aside
      aria-label={kind ? `New ${kind === "short" ? "short link" : "redirect"}` : "Route"}
      className="sticky top-16 rounded border border-line bg-sheet p-4"
      onKeyDown={(event) => event.key === "Escape" && close()}
    >
      <button className="absolute top-3 right-3 text-quiet hover:text-ink" aria-label="Close" onClick={close}>
        <X size={17} aria-hidden />
      </button>
      {kind ? (
        <>
          <h2 className="mb-3 font-semibold">{kind === "short" ? "New short link" : "New redirect"}</h2>
          <RouteForm
            key={to}
            site={site}
            kind={kind}
            destination={to}
            onSaved={(route) => setAddressState({ open: route.id, to: "" })}
          />
        </>
      ) : (
        <OpenRoute site={site} id={open} />
      )}
    </aside>
  );
}

function OpenRoute({ site, id }: { site: Site; id: string }) {
  const found = useQuery({
    queryKey: ["route", site.id, id],
    queryFn: () => api<Route>("GET", `/sites/${site.id}/routes/${id}`),
    refetchInterval: 4_000,
  });
  const remove = useDeleteRoute(site);
  if (found.isError) return <p className="text-bad">{messageOf(found.error)}</p>;
  const route = found.data;
  if (!route) return <p className="text-quiet">Fetching the route…</p>;
  return (
    <>
      <h2 className="pr-6 text-lg leading-tight">
        <AddressText address={route.url} most={80} />
      </h2>
      <div className="mt-2 mb-3 flex flex-wrap gap-2">
        <button className="action" onClick={() => void copyText(route.url)}>
          <Copy size={14} aria-hidden /> Copy
        </button>
        <a className="action" href={route.url} target="_blank" rel="noopener">
          Open <ExternalLink size={14} aria-hidden />
        </a>
        <button className="action action-plain ml-auto text-bad" onClick={() => remove.mutate(route)}>
          Delete
        </button>
      </div>
      <p className="mb-1 text-sm">
        <strong data-testid="click-count">{route.clicks.toLocaleString("en-GB")}</strong> clicks by persons.{" "}
        <a className="text-accent underline" href={`/${site.key}/clicks?route=${route.id}`}>
          All about them
        </a>
      </p>
      <Suspense fallback={<div className="h-28" />}>
        <ClicksChart site={site} routeId={route.id} />
      </Suspense>
      <hr className="my-3 border-line" />
      <RouteForm
        key={`${route.id} ${route.version}`}
        site={site}
        kind={route.kind}
        route={route}
        destination={route.destination ?? ""}
        onSaved={() => undefined}
      />
    </>
  );
}
