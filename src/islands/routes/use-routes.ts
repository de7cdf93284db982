import { useMutation, useQuery } from "@tanstack/react-query";
import type { Route, WrittenRoute, WrittenRouteChange } from "../../core/routes/route.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf, queries, type ListOf } from "../../ui/client/api.ts";
import { copyText } from "../../ui/keys/copy.ts";
import { notify } from "../../ui/notices/notices.ts";
import type { RouteChangeEntry } from "./open/change-in-words.ts";
import { setAddressState } from "../../ui/client/url-state.ts";

/** Asks anew for everything that shows routes. */
export function refreshRoutes(): void {
  for (const key of [
    "routes",
    "route",
    "route-check",
    "route-history",
    "paste",
    "looks",
    "misses",
    "route-findings",
  ])
    void queries.invalidateQueries({ queryKey: [key] });
}

/** Makes a route and puts a short link's address on the clipboard. */
export function useCreateRoute(site: Site) {
  return useMutation({
    mutationFn: (input: Partial<WrittenRoute>) => api<Route>("POST", `/sites/${site.id}/routes`, input),
    onSuccess: (route) => {
      refreshRoutes();
      if (route.kind === "short") void copyText(route.url);
      else notify(`${route.address} is answered now`);
    },
  });
}

// What was saved stands in the lists at once: who goes on before they are fetched anew works on the new version.
function showSaved(route: Route): void {
  type Pages = { pages: ListOf<Route>[]; pageParams: unknown[] };
  const saved = (other: Route): Route => (other.id === route.id ? { ...other, ...route } : other);
  queries.setQueriesData<Pages>({ queryKey: ["routes"] }, (known) =>
    known?.pages
      ? { ...known, pages: known.pages.map((page) => ({ ...page, items: page.items.map(saved) })) }
      : known,
  );
  refreshRoutes();
}

/** Changes fields of a route. */
export function useChangeRoute(site: Site) {
  return useMutation({
    mutationFn: ({ route, change }: { route: Route; change: Omit<Partial<WrittenRouteChange>, "version"> }) =>
      api<Route>("PATCH", `/sites/${site.id}/routes/${route.id}`, { ...change, version: route.version }),
    onSuccess: showSaved,
    onError: (error) => {
      notify(messageOf(error), { tone: "failed" });
      refreshRoutes();
    },
  });
}

/** Deletes a route; the notice brings it back. */
export function useDeleteRoute(site: Site) {
  const restore = (route: Route): void =>
    void api<Route>("POST", `/sites/${site.id}/routes/${route.id}/restore`).then(
      refreshRoutes,
      (error: unknown) => notify(messageOf(error), { tone: "failed" }),
    );
  return useMutation({
    mutationFn: (route: Route) => api("DELETE", `/sites/${site.id}/routes/${route.id}`),
    onSuccess: (_, route) => {
      setAddressState({ open: "" });
      refreshRoutes();
      notify(`Deleted ${route.address}`, { undo: () => restore(route) });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}

/** Counts a route's clicks from now on, or from the beginning again. */
export function useResetCount(site: Site) {
  return useMutation({
    mutationFn: ({ route, on }: { route: Route; on: boolean }) =>
      api<Route>(on ? "POST" : "DELETE", `/sites/${site.id}/routes/${route.id}/zero`),
    onSuccess: (route, { on }) => {
      refreshRoutes();
      const back = (): void =>
        void api("DELETE", `/sites/${site.id}/routes/${route.id}/zero`).then(
          refreshRoutes,
          (error: unknown) => notify(messageOf(error), { tone: "failed" }),
        );
      notify(
        on ? "Counting from zero; nothing was deleted" : "Counting from the beginning",
        on ? { undo: back } : {},
      );
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}

/** Who changed a route, when and what. */
export function useRouteHistory(site: Site, id: string, enabled = true) {
  return useQuery({
    queryKey: ["route-history", site.id, id],
    queryFn: () => api<{ items: RouteChangeEntry[] }>("GET", `/sites/${site.id}/routes/${id}/history`),
    enabled,
  });
}
