import { useMutation } from "@tanstack/react-query";
import type { Route, RouteChange, RouteInput } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { api, messageOf, queries } from "../../ui/api.ts";
import { copyText } from "../../ui/copy.ts";
import { tell } from "../../ui/notices.ts";
import { setAddressState } from "../../ui/url-state.ts";

function refresh(): void {
  for (const key of ["routes", "route", "route-check", "paste", "looks", "misses"])
    void queries.invalidateQueries({ queryKey: [key] });
}

/** Makes a route and puts a short link's address on the clipboard. */
export function useCreateRoute(site: Site) {
  return useMutation({
    mutationFn: (input: Partial<RouteInput>) => api<Route>("POST", `/sites/${site.id}/routes`, input),
    onSuccess: (route) => {
      refresh();
      if (route.kind === "short") void copyText(route.url);
      else tell(`${route.address} is answered now`);
    },
  });
}

/** Changes fields of a route. */
export function useChangeRoute(site: Site) {
  return useMutation({
    mutationFn: ({ route, change }: { route: Route; change: Omit<Partial<RouteChange>, "version"> }) =>
      api<Route>("PATCH", `/sites/${site.id}/routes/${route.id}`, { ...change, version: route.version }),
    onSuccess: refresh,
    onError: (error) => {
      tell(messageOf(error), { tone: "failed" });
      refresh();
    },
  });
}

/** Deletes a route; the notice brings it back. */
export function useDeleteRoute(site: Site) {
  const restore = (route: Route): void =>
    void api<Route>("POST", `/sites/${site.id}/routes/${route.id}/restore`).then(refresh, (error: unknown) =>
      tell(messageOf(error), { tone: "failed" }),
    );
  return useMutation({
    mutationFn: (route: Route) => api("DELETE", `/sites/${site.id}/routes/${route.id}`),
    onSuccess: (_, route) => {
      setAddressState({ open: "" });
      refresh();
      tell(`Deleted ${route.address}`, { undo: () => restore(route) });
    },
    onError: (error) => tell(messageOf(error), { tone: "failed" }),
  });
}
