import type { Partner } from "../programs/partner.ts";
import { buildLink } from "../programs/build-link.ts";
import { hostOf, plainHost } from "../address/classify.ts";
import { recogniser, type Recogniser, type Recognition } from "../programs/recognise.ts";
import { DEFAULT_SUB_ID, fillSubId, fitSubId, type Placement } from "../programs/sub-id.ts";
import { readTemplate } from "../programs/template.ts";
import { domainNames } from "./resolve/match.ts";

/** The partners that a link belongs to. */
export interface PartnersThere {
  programs: readonly string[];
  networks: readonly string[];
  /** One of them pays by the referrer. */
  needsReferrer: boolean;
  /** Host where a tracked link is known to end, when it is not the one that it is written with. */
  end: string | undefined;
}

interface Known {
  byDomain: Map<string, Partner[]>;
  byName: Map<string, Partner>;
  /** Hosts of networks, which many programs share: only the whole address tells whose link it is. */
  networkHosts: ReadonlySet<string>;
  recognise: Recogniser<RecognisablePartner>;
}
type RecognisablePartner = ReturnType<typeof recognisable>;

const NOBODY: PartnersThere = { programs: [], networks: [], needsReferrer: false, end: undefined };
const tables = new WeakMap<readonly Partner[], Known>();

/** Whose readers a link to this domain brings. */
export function partnersAt(
  partners: readonly Partner[] | undefined,
  domain: string | undefined,
): PartnersThere {
  if (!partners || partners.length === 0 || domain === undefined) return NOBODY;
  return together(owners(knownOf(partners), domain));
}

/** Whose readers a link to this address brings: its domain's owners, or the program whose tracked link it is. */
export function partnersOf(
  partners: readonly Partner[] | undefined,
  domain: string | undefined,
  address: string,
): PartnersThere {
  if (!partners || partners.length === 0 || domain === undefined) return NOBODY;
  const known = knownOf(partners);
  const there = owners(known, domain);
  if (!known.networkHosts.has(domain)) return together(there);
  const found = known.recognise(address);
  if (!found) return together(there);
  const { partner } = found.program;
  if (!there.includes(partner)) there.unshift(partner);
  const end = endOf(found);
  return end === undefined || end === domain ? together(there) : { ...together(there), end };
}

// The page that it carries says it; where it carries none, or a path, a program that has one host is meant.
function endOf({ destination, program }: Recognition<RecognisablePartner>): string | undefined {
  const carried = destination === null ? undefined : plainHost(destination);
  if (carried !== undefined) return carried;
  if (destination !== null && /^https?:\/\//i.test(destination) && URL.canParse(destination))
    return hostOf(destination) || undefined;
  const [only, ...more] = program.domains;
  return more.length === 0 && only !== undefined && !only.startsWith("*.") ? only : undefined;
}

/** A link that leads to a program without our tracking, and the one to put in its place where it can be built. */
export interface Untracked {
  program: string;
  /** The program's id, where its partner has one. */
  id: string | undefined;
  /** Whose tracking it carries instead; null when it carries none. */
  foreignId: string | null;
  /** The page itself, without tracking; null when the link names none. */
  destination: string | null;
  tracked: string | undefined;
  /** The tracked one is put in its place on pages that readers get through us from elsewhere. */
  isPutOnTheWay: boolean;
}

/**
 * Says of an address that leads to a program whether it earns nothing: without tracking, or with somebody else's.
 * Undefined for links that earn, and for programs of which nobody has said how links are built.
 */
export function untracked(
  partners: readonly Partner[] | undefined,
  address: string,
  placement: Placement,
): Untracked | undefined {
  const found = partners && knownOf(partners).recognise(address);
  if (!found || found.tracking === "ours") return undefined;
  const { template, trackingId, domains, partner } = found.program;
  if (!template || trackingId === "") return undefined;
  const { name, subIdPattern = DEFAULT_SUB_ID, subIdLimit = 50, tracksOnTheWay = false } = partner;
  const subId = fitSubId(fillSubId(subIdPattern, placement), subIdLimit);
  const terms = { name, template, trackingId, domains, subIdLimit };
  const built = found.destination === null ? undefined : buildLink(terms, found.destination, subId);
  return {
    program: name,
    id: partner.id,
    foreignId: found.trackingId,
    destination: found.destination,
    tracked: built?.ok ? built.address : undefined,
    isPutOnTheWay: tracksOnTheWay && built?.ok === true,
  };
}

/** The program of a link that carries our tracking, and its sub-ID; undefined for every other link. */
export function tracked(
  partners: readonly Partner[] | undefined,
  address: string,
): { program: string; subId: string | null } | undefined {
  const found = partners && knownOf(partners).recognise(address);
  return found?.tracking === "ours" ? { program: found.program.name, subId: found.subId } : undefined;
}

/** The sub-ID of a link that carries our tracking; null when it has none. */
export function subIdOf(partners: readonly Partner[] | undefined, address: string): string | null {
  return tracked(partners, address)?.subId ?? null;
}

/** True when one of these programs pays by the referrer. */
export function needsReferrer(
  partners: readonly Partner[] | undefined,
  programs: readonly string[],
): boolean {
  if (!partners || programs.length === 0) return false;
  const { byName } = knownOf(partners);
  return programs.some((name) => byName.get(name)?.needsReferrer);
}

function owners({ byDomain }: Known, domain: string): Partner[] {
  return [...new Set(domainNames(domain).flatMap((name) => byDomain.get(name) ?? []))];
}

function together(there: readonly Partner[]): PartnersThere {
  if (there.length === 0) return NOBODY;
  return {
    programs: there.map(({ name }) => name),
    networks: [...new Set(there.map(({ network }) => network).filter(Boolean))],
    needsReferrer: there.some((partner) => partner.needsReferrer),
    end: undefined,
  };
}

function knownOf(partners: readonly Partner[]): Known {
  const known = tables.get(partners);
  if (known) return known;
  const byDomain = new Map<string, Partner[]>();
  for (const partner of partners)
    for (const domain of partner.domains) {
      const there = byDomain.get(domain);
      if (there) there.push(partner);
      else byDomain.set(domain, [partner]);
    }
  const recognisables = partners.map(recognisable);
  const made: Known = {
    byDomain,
    byName: new Map(partners.map((partner) => [partner.name, partner])),
    networkHosts: new Set(
      recognisables.flatMap(({ template }) =>
        template?.style === "wrapper" ? template.host.replace(/:\d+$/, "") : [],
      ),
    ),
    recognise: recogniser(recognisables),
  };
  tables.set(partners, made);
  return made;
}

function recognisable(partner: Partner) {
  const { name, trackingId = "", domains } = partner;
  const read = readTemplate(partner.template ?? "");
  return { name, trackingId, domains, template: read.ok ? read.template : undefined, partner };
}
