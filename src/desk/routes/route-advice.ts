import { from } from "../../core/text/cut.ts";
import { compareKey } from "../../core/address/compare.ts";
import { pathKey } from "../../core/address/path-key.ts";
import { homePhone } from "../../core/address/repair/home-phone.ts";
import { looksLikeAddress, repairAddress } from "../../core/address/repair/repair.ts";
import { splitOwnAddress } from "../../core/ground/fields.ts";
import type { Advice, RouteCheck, routeQuestionSchema } from "../../core/routes/route.ts";
import { adviseRoute, type RouteDraft } from "../../core/routes/advise.ts";
import { addressFault, routeKey } from "../../core/routes/match/address-form.ts";
import { mistypings } from "../../core/routes/slugs/mistypings.ts";
import { mistakable, spoken } from "../../core/routes/slugs/spoken.ts";
import { publicAddress } from "../../core/address/public-address.ts";
import { suggestSlugs } from "../../core/routes/slugs/suggest-slugs.ts";
import type { z } from "zod";
import { snapshotForAdvice, snapshotSite } from "../links/site-snapshot.ts";
import type { FieldError } from "../ground/problem.ts";
import { routeViews } from "./route-views.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";
import { keysTaken } from "../../store/routes/addresses.ts";
import { shortLinksOf } from "../../store/routes/routes.ts";

/** Asks the linter about a route against what the site holds now. */
export async function adviceFor(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  draft: RouteDraft,
  routeId?: string,
): Promise<Advice[]> {
  const exact = draft.match === "exact";
  const keys = draft.addresses.flatMap((address) => [
    ...(exact ? [pathKey(address)] : []),
    routeKey(address, draft.caseInsensitive, draft.match),
  ]);
  const snapshot = await snapshotSite(desk, site, draft.destination ? [draft.destination] : [], keys);
  await snapshotForAdvice(desk, site, snapshot, exact ? keys : [], draft.destination);
  return adviseRoute(draft, snapshot.surroundings(Date.now(), routeId));
}

/** The linter's refusals as messages at their fields. */
export function refusals(advice: readonly Advice[]): FieldError[] {
  return advice
    .filter(({ severity }) => severity === "error")
    .map(({ field, message }) => ({ path: field ?? "", message }));
}

/** Answers, while somebody types, whether a route could be saved, what it might be called, and whether there is one already. */
export async function checkRoute(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
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

  const typed = splitOwnAddress(question.address, site.hostNames, question.match === "pattern");
  const fault =
    typed.path === "" || (typed.path === "/" && question.match === "exact")
      ? undefined
      : addressFault(typed.path, question.match);
  if (fault) errors.push({ path: "address", message: fault });
  const host = typed.host ?? question.host ?? null;

  const advice: Advice[] = [];
  if (!fault && typed.path.length > 1) {
    const draft: RouteDraft = {
      host,
      match: question.match,
      addresses:
        question.match === "exact" ? [typed.path, ...question.aliases.filter(Boolean)] : [typed.path],
      caseInsensitive: question.kind === "short",
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
    ...(await spelling(desk, site, question, typed.path, host, fault !== undefined)),
    existing:
      destination && question.kind === "short"
        ? await shortLinksTo(desk, site, destination, question.id)
        : [],
  };
}

// Where the address is free, how it sounds, and what people may type instead.
async function spelling(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  question: z.infer<typeof routeQuestionSchema>,
  path: string,
  host: string | null,
  faulty: boolean,
): Promise<Pick<RouteCheck, "hosts" | "spoken" | "mistypings">> {
  const prefix = shortPrefixOn(site, host);
  if (faulty || question.match !== "exact" || path.length <= prefix.length)
    return { hosts: [], spoken: null, mistypings: [] };
  const caseInsensitive = question.kind === "short";
  const home = path.slice(0, path.lastIndexOf("/") + 1);
  const slug = path.slice(home.length);
  const others = mistypings(slug, () => false, 12);
  const keys = [slug, ...others.map((one) => one.slug)].map((one) => routeKey(home + one, caseInsensitive));
  const snapshot = await snapshotSite(desk, site, [], keys);
  const around = snapshot.surroundings(Date.now(), question.id);
  const takenOn = (on: string, key: string): string | null => {
    const route = around.claimAt(on, key);
    if (route) return route.destination ? `leads to ${route.destination}` : "is answered as gone";
    const page = around.pageAt(on, key);
    return page ? `is the page “${page.title}”` : null;
  };
  const key = routeKey(path, caseInsensitive);
  const sayable = mistakable(slug);
  return {
    hosts: site.hosts.map(({ name }) => {
      const takenBy = takenOn(name, key);
      return { host: name, free: takenBy === null, takenBy };
    }),
    spoken: `${spoken(publicAddress(host ?? site.primary, path, desk.deliveryPort))}${sayable ? ` (${sayable})` : ""}`,
    mistypings: caseInsensitive
      ? others
          .filter((one) => takenOn(host ?? site.primary, routeKey(home + one.slug, caseInsensitive)) === null)
          .slice(0, 6)
          .map(({ slug: other, reason }) => ({ address: home + other, reason }))
      : [],
  };
}

/** What is known around addresses of this site, for the warnings of `repairAddress`. */
export function surroundingsOf(desk: WithWorkspaceHosts, site: OpenSite) {
  const { country } = site;
  return {
    privateHosts: desk.workspaceHosts,
    ownHosts: site.hostNames,
    ...(country ? { homePhone: (text: string) => homePhone(text, country) } : {}),
  };
}

/** The short links that lead to this destination already. */
export async function shortLinksTo(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  destination: string,
  except?: string,
) {
  if (!looksLikeAddress(destination)) return [];
  const rows = await shortLinksOf(desk.store, {
    siteId: site.id,
    destinationKey: compareKey(destination),
    limit: 20,
  });
  // The heading that an address leads to is part of where its reader arrives.
  const heading = headingOf(destination);
  return routeViews(
    desk,
    site,
    rows.filter((row) => row.id !== except && headingOf(row.destination ?? "") === heading).slice(0, 5),
  );
}

function headingOf(address: string): string {
  return from(address, "#");
}

/** Where new short links of this host begin: a host kept for short links needs no prefix. */
export function shortPrefixOn(site: OpenSite, host: string | null): string {
  const role = site.hosts.find(({ name }) => name === (host ?? site.primary))?.role;
  return role === "short" ? "/" : site.shortPrefix || "/";
}

async function suggestions(
  desk: WithStore,
  site: OpenSite,
  destination: string,
  title: string,
  host: string | null,
): Promise<RouteCheck["suggestions"]> {
  const prefix = shortPrefixOn(site, host);
  const rows = await keysTaken(desk.store, { site: site.id, host: host ?? site.primary });
  const taken = rows.map(({ key }) => (key.startsWith(prefix) ? key.slice(prefix.length) : key.slice(1)));
  return suggestSlugs(destination, title, taken).map(({ slug, reason }) => ({
    address: `${prefix}${slug}`,
    reason,
  }));
}
