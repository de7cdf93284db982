import pLimit from "p-limit";
import { z } from "zod";
import { ownPlace } from "../../core/address/classify.ts";
import { repairAddress } from "../../core/address/repair/repair.ts";
import { closestAddresses, closestMatch } from "../../core/misses/closest.ts";
import { MAX_HOPS } from "../../core/address/max-hops.ts";
import { followOwn, type OwnHop } from "../../core/routes/chain/follow.ts";
import type { OwnSite } from "../../core/routes/chain/own-site.ts";
import { cameBack, judge, type Endless, type Trace, type TraceHop } from "../../core/trace/trace.ts";
import { UNWATCHED, type Progress } from "../../threads/progress.ts";
import { knownAddresses } from "../misses/known-addresses.ts";
import { snapshotSite } from "../links/site-snapshot.ts";
import type { OpenSite } from "../sites/open-site.ts";
import type { WithStore, WithDeliveryPort, WithOutgoing } from "../ground/parts.ts";
import { traceQuestionSchema } from "../../contract/trace.ts";

const AT_ONCE = 12;
const NOT_FOUND_TITLE =
  /\b404\b|\bnot found\b|nothing (?:was )?found|page .{0,20}(?:missing|gone|unavailable)|no longer (?:available|exists)/i;

/** Follows addresses hop by hop: through our own routes as readers are answered now, then outside. */
export async function traceAddresses(
  desk: WithStore & WithDeliveryPort & WithOutgoing,
  site: OpenSite,
  question: z.infer<typeof traceQuestionSchema>,
  progress: Progress = UNWATCHED,
): Promise<{ results: Trace[] }> {
  const repaired = question.addresses.map((typed) => repairAddress(typed));
  const closest = site.misses.answer === "closest" ? await closestOn(desk, site) : undefined;
  const lookUp = async (addresses: readonly string[]): Promise<OwnSite> =>
    (await snapshotSite(desk, site, [...addresses, ...meant(site, addresses, closest)])).ownSite(
      Date.now(),
      undefined,
      closest,
    );
  const own = await lookUp(repaired.flatMap((one) => (one.ok ? [one.address] : [])));
  const limit = pLimit(AT_ONCE);
  let done = 0;
  const results = await Promise.all(
    repaired.map(async (one, index) => {
      const typed = question.addresses[index]!;
      if (!one.ok) return judgedRefusal(typed, one.reason.message);
      return limit(async () => {
        const result = await traceOne(
          desk,
          site,
          own,
          lookUp,
          typed,
          one.address,
          question.outside,
          progress.signal,
        );
        await progress.step((done += 1), repaired.length);
        return result;
      });
    }),
  );
  return { results };
}

function judgedRefusal(address: string, reason: string): Trace {
  return { ...judge(address, [], undefined), note: reason };
}

async function traceOne(
  desk: WithOutgoing,
  site: OpenSite,
  start: OwnSite,
  lookUp: (addresses: readonly string[]) => Promise<OwnSite>,
  typed: string,
  address: string,
  outside: boolean,
  signal: AbortSignal,
): Promise<Trace> {
  const hops: TraceHop[] = [];
  let current = address;
  let endless: Endless;
  let own = start;
  for (;;) {
    // The way may come back to our own site from outside, and leave it again.
    const chain = followOwn(current, own);
    const again = chain.hops.find((hop) => cameBack(hops, hop.address));
    hops.push(...chain.hops.map(ownHop));
    endless = again ? "loop" : chain.endless;
    if (endless || chain.next === null) break;
    if (cameBack(hops, chain.next)) endless = "loop";
    else if (hops.length > MAX_HOPS) endless = "too-long";
    else if (!outside) endless = "not-asked";
    if (endless) {
      if (endless === "not-asked") hops.push({ address: chain.next, status: null, by: "outside" });
      break;
    }
    const { hop, next } = await ask(desk, chain.next, signal);
    hops.push(hop);
    if (next === null) break;
    if (cameBack(hops, next)) {
      endless = "loop";
      break;
    }
    current = next;
    // Back on our own site, at a place that nobody has looked at yet.
    if (ownPlace(current, site.hostNames)) own = await lookUp([current]);
  }
  return judge(typed, hops, endless, Object.values(site.variables));
}

async function ask(
  desk: WithOutgoing,
  address: string,
  signal: AbortSignal,
): Promise<{ hop: TraceHop; next: string | null }> {
  const visit = await desk.outgoing.visit(address, { title: true, signal });
  if (!visit.ok)
    return {
      hop: {
        address,
        status: null,
        by: "outside",
        note: `${hostOf(address)} ${visit.reason}.`,
        ms: visit.ms,
      },
      next: null,
    };
  const { status, location, title, ms } = visit;
  const leads = status >= 300 && status < 400 && location !== null && URL.canParse(location, address);
  const missing = status === 200 && title !== null && NOT_FOUND_TITLE.test(title);
  return {
    hop: {
      address,
      status,
      by: "outside",
      ms,
      ...(missing ? { note: `says 200, but its page is called “${title}”.` } : title ? { note: title } : {}),
    },
    next: leads ? new URL(location, address).href : null,
  };
}

function ownHop({ address, answer }: OwnHop): TraceHop {
  const base = { address, status: answer.status, by: answer.by };
  if (answer.by === "route") return { ...base, id: answer.id };
  if (answer.by === "page") return { ...base, id: answer.id, note: answer.title };
  if (answer.by === "spelling") return { ...base, note: "The path is spelled otherwise." };
  if (answer.by === "elsewhere") return { ...base, note: "In the system where the site's pages stand." };
  return answer.by === "miss" ? { ...base, note: MISS_NOTES[answer.rule] } : base;
}

const MISS_NOTES = {
  help: "The page with the closest addresses.",
  closest: "The closest address, which the site sends misses to.",
  destination: "What the site has chosen for misses.",
  root: "Where the root of a host for short links leads.",
} as const;

// Where the site would send these addresses if nothing answers them: to be looked up as well.
function meant(
  site: OpenSite,
  addresses: readonly string[],
  closest: ((host: string, key: string) => string | undefined) | undefined,
): string[] {
  if (!closest) return [];
  return addresses.flatMap((address) => {
    const place = ownPlace(address, site.hostNames);
    return (place && closest(place.host ?? site.primary, place.key)) ?? [];
  });
}

async function closestOn(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
): Promise<(host: string, key: string) => string | undefined> {
  const known = await knownAddresses(desk, site);
  return (host, key) => closestMatch(closestAddresses(key, known.get(host) ?? [], 2))?.address;
}

function hostOf(address: string): string {
  return URL.canParse(address) ? new URL(address).host : address;
}
