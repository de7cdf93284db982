import { useQuery } from "@tanstack/react-query";
import type { RouteCheck } from "../../../core/routes/route.ts";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { FrameSite } from "../../../ui/frame/frame-site.ts";
import type { MatchKind } from "../../../core/routes/match/match-kind.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { asking } from "../../../ui/client/queries.ts";
import { api } from "../../../ui/client/api.ts";

/** A route as far as it has been typed. */
export interface RouteQuestion {
  id?: string;
  kind: RouteKind;
  match?: MatchKind;
  address: string;
  aliases?: string[];
  host: string | null;
  destination: string;
  title: string;
  replacesPage: boolean;
}

/** Asks the linter while somebody types; the last answer stays until the next one is there. */
export function useRouteCheck(site: FrameSite, question: RouteQuestion): RouteCheck | undefined {
  const settled = useDebounced(JSON.stringify(question), 180);
  return useQuery({
    ...asking("POST /sites/:site/routes/check", { site: site.id, body: JSON.parse(settled) }),
    placeholderData: (previous) => previous,
    staleTime: 0,
  }).data;
}

/** The title that an outside page gives itself; undefined until it has answered, null when it gives none. */
export function useOutsideTitle(
  site: FrameSite,
  destination: string | null,
  wanted: boolean,
): string | null | undefined {
  const settled = useDebounced(destination ?? "", 500);
  return useQuery({
    queryKey: ["outside-title", settled],
    queryFn: () =>
      api("POST /sites/:site/routes/title", { site: site.id, body: { address: settled } }).then(
        ({ title }) => title,
      ),
    enabled: wanted && /^https?:\/\/[^/]+\./.test(settled) && settled === destination,
    staleTime: Infinity,
    retry: false,
  }).data;
}

/** Where a new short link goes: the host that the site names for them, or one that is kept for them, and what its address begins with. */
export function shortHome(site: FrameSite): { host: string | null; prefix: string; url: string } {
  const named = site.hosts.find(({ name, role }) => name === site.defaults.shortHost && role !== "former");
  if (named && named.role !== "short")
    return { host: named.name, prefix: site.shortPrefix || "/", url: named.url };
  const short = named ?? site.hosts.find(({ role }) => role === "short");
  if (short) return { host: short.name, prefix: "/", url: short.url };
  return {
    host: null,
    prefix: site.shortPrefix || "/",
    url: site.hosts.find(({ role }) => role === "primary")!.url,
  };
}
