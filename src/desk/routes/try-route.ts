import { z } from "zod";
import { ownPlace } from "../../core/address/classify.ts";
import { caseFoldedKey, pathKey } from "../../core/address/path-key.ts";
import { repairAddress } from "../../core/address/repair/repair.ts";
import { splitOwnAddress } from "../../core/ground/fields.ts";
import { QUERY_MODES, type RouteStatus } from "../../core/routes/choices.ts";
import { addressFault, readRouteKey, routeKey } from "../../core/routes/match/address-form.ts";
import { withCaptures } from "../../core/routes/match/captures.ts";
import { MATCH_KINDS } from "../../core/routes/match/match-kind.ts";
import { draftTable } from "../../core/routes/match/draft-table.ts";
import { literalOf } from "../../core/routes/match/pattern-table.ts";
import { followOwn, type OwnHop } from "../../core/routes/chain/follow.ts";
import { inEffect } from "../../core/routes/chain/in-effect.ts";
import type { OwnAnswer, OwnSite } from "../../core/routes/chain/own-site.ts";
import { withParameters } from "../../core/routes/chain/parameters.ts";
import { invalid } from "../ground/problem.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithWorkspaceHosts } from "../ground/parts.ts";
import { tryRouteSchema, type Tried } from "../../contract/routes/try.ts";
const DRAFT = "0";

/** Says where each address would end if the route were saved as it is typed. */
export async function tryRoute(
  desk: WithStore & WithDeliveryPort & WithWorkspaceHosts,
  site: OpenSite,
  draft: z.infer<typeof tryRouteSchema>,
): Promise<Tried> {
  const { path, host: typedHost } = splitOwnAddress(draft.address, site.hostNames, draft.match === "pattern");
  const fault = addressFault(path, draft.match);
  if (fault) throw invalid([{ path: "address", message: fault }]);
  const repaired = draft.destination.trim() === "" ? undefined : repairAddress(draft.destination);
  const destination = draft.kind === "gone" || !repaired?.ok ? null : (repaired.address as string);
  const tries = draft.tries.map((typed) => typed.trim()).filter(Boolean);
  const addresses = tries.map((typed) => fullAddress(typed, site, desk));
  const snapshot = await snapshotSite(desk, site, [
    ...addresses,
    ...(destination === null ? [] : [destination]),
    ...leadsTo({ ...draft, path, destination }, addresses, site),
  ]);
  const host = typedHost ?? draft.host ?? null;
  const now = Date.now();
  const around = snapshot.surroundings(now, draft.id);
  const own = withDraft(
    snapshot.ownSite(now, draft.id),
    { ...draft, path, host, destination },
    (on, key) => around.patternAt?.(on, key)?.literal,
  );
  return {
    results: tries.map((typed, index) => {
      const chain = followOwn(addresses[index]!, own);
      const first = chain.hops[0]?.answer;
      const last = chain.hops.at(-1);
      return {
        address: typed,
        answered: first?.by === "route" && first.id === DRAFT,
        status: first?.status ?? null,
        by: first?.by ?? "outside",
        end: chain.endless ? null : (chain.next ?? last?.address ?? null),
        hops: chain.hops.length,
        note: noteOf(chain.endless, last?.answer, chain.next),
      };
    }),
  };
}

// Where the draft leads from these addresses: what stands there is looked up as well.
function leadsTo(
  { match, kind, path, destination }: Pick<Draft, "match" | "kind" | "path" | "destination">,
  addresses: readonly string[],
  site: OpenSite,
): string[] {
  if (match === "exact" || destination === null) return [];
  const table = draftTable([path], match, kind === "short");
  return addresses.flatMap((address) => {
    const place = ownPlace(address, site.hostNames);
    const [hit] = place ? table.find("", place.key) : [];
    return (hit && withCaptures(destination, hit.captures)) ?? [];
  });
}

function noteOf(
  endless: string | undefined,
  last: OwnHop["answer"] | undefined,
  next: string | null,
): string {
  if (endless === "loop") return "goes round in a circle";
  if (endless) return "takes too many hops";
  if (next !== null || !last) return "leaves the site";
  if (last.by === "page") return `the page “${last.title}”`;
  if (last.by === "route") return "gone (410)";
  if (last.by === "elsewhere") return "a page that stands elsewhere";
  return last.by === "file" ? "a file" : "nothing answers it";
}

function fullAddress(typed: string, site: OpenSite, desk: WithWorkspaceHosts): string {
  if (typed.startsWith("/")) return typed;
  const repaired = repairAddress(typed, { privateHosts: desk.workspaceHosts, ownHosts: site.hostNames });
  return repaired.ok ? repaired.address : typed;
}

interface Draft {
  match: (typeof MATCH_KINDS)[number];
  kind: string;
  path: string;
  host: string | null;
  destination: string | null;
  status: number;
  query: (typeof QUERY_MODES)[number];
  parameters: string;
}

// The site with the draft in its place: exact ones first of all, others where their literal part puts them.
function withDraft(
  site: OwnSite,
  draft: Draft,
  literalAt: (host: string | null, key: string) => number | undefined,
): OwnSite {
  const caseInsensitive = draft.kind === "short";
  const stored = routeKey(draft.path, caseInsensitive, draft.match);
  const table = draftTable([draft.path], draft.match, caseInsensitive);
  const { match, key: own } = readRouteKey(stored);
  const literal = match === "exact" ? 0 : literalOf({ match, key: own });
  const answer = (captures: readonly string[]): OwnAnswer | undefined => {
    const to =
      draft.destination === null ? null : headerSafe(withParameters(draft.destination, draft.parameters));
    const status = (draft.destination === null ? 410 : draft.status) as RouteStatus;
    const effect = inEffect(
      { status, destination: to, from: 0, until: Infinity, afterEnd: "nothing", endDestination: null },
      0,
      captures,
    );
    return effect && { by: "route", id: DRAFT, query: draft.query, ...effect };
  };
  return {
    ...site,
    answerAt(host, key) {
      const here = draft.host === null || host === null || host === draft.host;
      const there = site.answerAt(host, key);
      if (!here) return there;
      if (match === "exact") {
        const same = stored === key || (caseInsensitive && stored === caseFoldedKey(pathKey(key)));
        return (same ? answer([]) : undefined) ?? there;
      }
      const [hit] = table.find("", key);
      if (!hit || there.by === "page" || there.by === "file") return there;
      const other = there.by === "route" ? literalAt(host, key) : undefined;
      // A route that answers without being a pattern is an exact one.
      if (there.by === "route" && (other === undefined || other >= literal)) return there;
      return answer(hit.captures) ?? there;
    },
  };
}
