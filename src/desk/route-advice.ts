import { compareKey } from "../core/address/compare.ts";
import { pathKey } from "../core/address/path-key.ts";
import { looksLikeAddress, repairAddress } from "../core/address/repair.ts";
import { pathFault, splitOwnAddress } from "../core/objects/fields.ts";
import type { Advice, RouteCheck, routeQuestionSchema } from "../core/objects/route.ts";
import { adviseRoute, routeKey, type RouteDraft } from "../core/routes/advise.ts";
import { suggestSlugs } from "../core/routes/suggest-slugs.ts";
import type { z } from "zod";
import type { Desk } from "./desk.ts";
import { lookUpPlaces } from "./places.ts";
import type { FieldError } from "./problem.ts";
import { routeViews } from "./route-views.ts";
import type { OpenSite } from "./sites.ts";

/** Asks the linter about a route against what the site holds now. */
export async function adviceFor(
  desk: Desk,
  site: OpenSite,
  draft: RouteDraft,
  routeId?: string,
): Promise<Advice[]> {
  const keys = draft.addresses.flatMap((address) => [pathKey(address), routeKey(address, draft.folded)]);
  const places = await lookUpPlaces(desk, site, draft.destination ? [draft.destination] : [], keys);
  return adviseRoute(draft, places.surroundings(routeId));
}

/** The linter's refusals as messages at their fields. */
export function refusals(advice: readonly Advice[]): FieldError[] {
  return advice
    .filter(({ severity }) => severity === "error")
    .map(({ field, message }) => ({ path: field ?? "", message }));
}

/** Answers, while somebody types, whether a route could be saved, what it might be called, and whether there is one already. */
export async function checkRoute(
  desk: Desk,
  site: OpenSite,
  question: z.infer<typeof routeQuestionSchema>,
): Promise<RouteCheck> {
  const errors: FieldError[] = [];
  const repaired =
    question.destination.trim() === ""
      ? undefined
      : repairAddress(question.destination, surroundingsOf(desk, site));
  if (repaired && !repaired.ok) errors.push({ path: "destination", message: repaired.reason.message });
  const destination = repaired?.ok ? repaired.address : null;

  const typed = splitOwnAddress(question.address, site.hostNames);
  const fault = typed.path === "" || typed.path === "/" ? undefined : pathFault(typed.path);
  if (fault) errors.push({ path: "address", message: fault });
  const host = typed.host ?? question.host ?? null;

  const advice: Advice[] = [];
  if (!fault && typed.path.length > 1) {
    const draft: RouteDraft = {
      host,
      addresses: [typed.path],
      folded: question.kind === "short",
      destination: question.kind === "gone" ? null : destination,
      replacesPage: question.replacesPage,
    };
    advice.push(...(await adviceFor(desk, site, draft, question.id)));
    errors.push(...refusals(advice));
  }
  if (repaired?.ok) {
    advice.push(
      ...repaired.warnings.map(({ message }) => ({
        code: "warning" as const,
        severity: "warning" as const,
        message,
        field: "destination",
      })),
    );
  }
  return {
    errors,
    advice: advice.filter(({ severity }) => severity !== "error"),
    destination,
    repairs: repaired?.repairs.map(({ message }) => message) ?? [],
    suggestions:
      destination && question.kind === "short"
        ? await suggestions(desk, site, destination, question.title, host)
        : [],
    existing:
      destination && question.kind === "short"
        ? await shortLinksTo(desk, site, destination, question.id)
        : [],
  };
}

/** What is known around addresses of this site, for the warnings of `repairAddress`. */
export function surroundingsOf(desk: Desk, site: OpenSite) {
  return { privateHosts: desk.workspaceHosts, ownHosts: site.hostNames };
}

/** The short links that lead to this destination already. */
export async function shortLinksTo(desk: Desk, site: OpenSite, destination: string, except?: string) {
  if (!looksLikeAddress(destination)) return [];
  const rows = await desk.store.routes.findAll({
    where: { siteId: site.id, kind: "short", destinationKey: compareKey(destination), deletedAt: null },
    order: [["id", "ASC"]],
    limit: 5,
  });
  return routeViews(
    desk,
    site,
    rows.filter((row) => row.id !== except),
  );
}

/** Where new short links of this host begin: a host kept for short links needs no prefix. */
export function shortPrefixOn(site: OpenSite, host: string | null): string {
  const role = site.hosts.find(({ name }) => name === (host ?? site.primary))?.role;
  return role === "short" ? "/" : site.shortPrefix || "/";
}

async function suggestions(
  desk: Desk,
  site: OpenSite,
  destination: string,
  title: string,
  host: string | null,
): Promise<RouteCheck["suggestions"]> {
  const prefix = shortPrefixOn(site, host);
  const rows = await desk.store.rows<{ key: string }>(
    "SELECT key FROM route_addresses WHERE site_id = $site::bigint AND host IN ('*', $host)",
    { site: site.id, host: host ?? site.primary },
  );
  const taken = rows.map(({ key }) => (key.startsWith(prefix) ? key.slice(prefix.length) : key.slice(1)));
  return suggestSlugs(destination, title, taken).map(({ slug, reason }) => ({
    address: `${prefix}${slug}`,
    reason,
  }));
}
