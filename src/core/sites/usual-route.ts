import type { QueryMode, RouteKind, RouteStatus } from "../routes/choices.ts";
import type { RouteDefaults } from "./route-defaults.ts";

const STATUS: Readonly<Record<RouteKind, RouteStatus>> = { short: 302, redirect: 301, gone: 410 };
// A redirect stands for the address that it replaces: what readers bring along goes on with them.
const QUERY: Readonly<Record<RouteKind, QueryMode>> = { short: "drop", redirect: "forward", gone: "drop" };

/** What a new route of a kind is like on a site, where it does not say otherwise. */
export function usualRoute(
  { shortStatus, redirectStatus, query, robots }: RouteDefaults,
  kind: RouteKind,
): { status: RouteStatus; query: QueryMode; noindex: boolean; nofollow: boolean } {
  const isShort = kind === "short";
  return {
    status: (isShort ? shortStatus : kind === "redirect" ? redirectStatus : undefined) ?? STATUS[kind],
    query: (isShort ? query : undefined) ?? QUERY[kind],
    noindex: isShort && (robots?.noindex ?? false),
    nofollow: isShort && (robots?.nofollow ?? false),
  };
}
