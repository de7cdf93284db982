import { useMutation, useQuery } from "@tanstack/react-query";
import type { Route, WrittenRoute, WrittenRouteChange } from "../../core/routes/route.ts";
import type { FrameSite } from "../../ui/frame/frame-site.ts";
import { copyText } from "../../ui/keys/copy.ts";
import { notify } from "../../ui/notices/notices.ts";
import { setAddressState } from "../../ui/client/url-state.ts";
import { queries, asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf, type Answer } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** Asks anew for everything that shows routes. */
export function refreshRoutes(): void {
  void refresh(
    "GET /sites/:site/routes",
    "GET /sites/:site/routes/facets",
    "GET /sites/:site/routes/:id",
    "GET /sites/:site/routes/:id/history",
    "POST /sites/:site/routes/check",
    "GET /sites/:site/routes/lint",
    "POST /sites/:site/paste",
    "POST /sites/:site/looks",
    "GET /sites/:site/misses",
    "GET /sites/:site/misses/summary",
  );
}

/** Makes a route and puts a short link's address on the clipboard. */
export function useCreateRoute(site: FrameSite) {
  return useMutation({
    mutationFn: (input: WrittenRoute) => api("POST /sites/:site/routes", { site: site.id, body: input }),
    onSuccess: (route) => {
      refreshRoutes();
      if (route.kind === "short") void copyText(route.url);
      else notify(say.isAnsweredNow(route.address));
    },
  });
}

// What was saved stands in the lists at once: who goes on before they are fetched anew works on the new version.
function showSaved(route: Route): void {
  type Pages = { pages: Answer<"GET /sites/:site/routes">[]; pageParams: unknown[] };
  const saved = (other: Route): Route => (other.id === route.id ? { ...other, ...route } : other);
  queries.setQueriesData<Pages>({ queryKey: ["GET /sites/:site/routes"] }, (known) =>
    known?.pages
      ? { ...known, pages: known.pages.map((page) => ({ ...page, items: page.items.map(saved) })) }
      : known,
  );
  refreshRoutes();
}

/** Changes fields of a route. */
export function useChangeRoute(site: FrameSite) {
  return useMutation({
    mutationFn: ({ route, change }: { route: Route; change: Omit<Partial<WrittenRouteChange>, "version"> }) =>
      api("PATCH /sites/:site/routes/:id", {
        site: site.id,
        id: route.id,
        body: { ...change, version: route.version },
      }),
    onSuccess: showSaved,
    onError: (error) => {
      notify(messageOf(error), { tone: "failed" });
      refreshRoutes();
    },
  });
}

/** Deletes a route; the notice brings it back. */
export function useDeleteRoute(site: FrameSite) {
  const restore = (route: Route): void =>
    void api("POST /sites/:site/routes/:id/restore", { site: site.id, id: route.id }).then(
      refreshRoutes,
      (error: unknown) => notify(messageOf(error), { tone: "failed" }),
    );
  return useMutation({
    mutationFn: (route: Route) => api("DELETE /sites/:site/routes/:id", { site: site.id, id: route.id }),
    onSuccess: (_, route) => {
      setAddressState({ open: "" });
      refreshRoutes();
      notify(say.deleted(route.address), { undo: () => restore(route) });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}

/** Counts a route's clicks from now on, or from the beginning again. */
export function useResetCount(site: FrameSite) {
  return useMutation({
    mutationFn: ({ route, on }: { route: Route; on: boolean }) =>
      api(on ? "POST /sites/:site/routes/:id/zero" : "DELETE /sites/:site/routes/:id/zero", {
        site: site.id,
        id: route.id,
      }),
    onSuccess: (route, { on }) => {
      refreshRoutes();
      const back = (): void =>
        void api("DELETE /sites/:site/routes/:id/zero", { site: site.id, id: route.id }).then(
          refreshRoutes,
          (error: unknown) => notify(messageOf(error), { tone: "failed" }),
        );
      notify(
        on ? say.theCountIsResetNothingWasDeleted : say.countingFromTheBeginning,
        on ? { undo: back } : {},
      );
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}

/** Who changed a route, when and what. */
export function useRouteHistory(site: FrameSite, id: string, enabled = true) {
  return useQuery({
    ...asking("GET /sites/:site/routes/:id/history", { site: site.id, id }),
    enabled,
  });
}
