import type { Rule } from "../rule.ts";
import { writtenOn } from "../resolve/link-attributes.ts";
import type { LinkFacts } from "../resolve/facts.ts";
import { resolve, type Resolved } from "../resolve/resolve.ts";
import { treatmentOf, TREATMENTS, type Treatment } from "../treatment.ts";

/** A link as the ledger keeps it. */
export interface TriedLink {
  id: string;
  place: string;
  words: string;
  href: string;
  rel: string | null;
  target: string | null;
  override: string | null;
}

/** The attributes of one link under one set. */
export interface LinkLook {
  rel: readonly string[];
  target: string | null;
}

/** One link that a set would change. */
export interface ChangedLink {
  id: string;
  page: string;
  anchor: string;
  href: string;
  before: LinkLook;
  after: LinkLook;
}

/** Links that change alike. */
export interface ChangeGroup {
  /** What is added and taken off, as words: `+nofollow +sponsored, new tab`. */
  change: string;
  links: number;
  pages: number;
  samples: ChangedLink[];
}

/** Outside links of one host, by treatment, before and after. */
export interface HostTreatments {
  host: string;
  before: Record<Treatment, number>;
  after: Record<Treatment, number>;
}

/** What a set of rules would do to a whole site. */
export interface Trial {
  links: number;
  pages: number;
  changed: number;
  changedPages: number;
  groups: ChangeGroup[];
  hosts: HostTreatments[];
  /** How many links each rule of the tried set decides something of, in the order of the set. */
  decides: number[];
}

const MAX_SAMPLES = 20;

/** Tries a set of rules against another, link by link; links may come in any portions. */
export class RuleTrial {
  private links = 0;
  private readonly places = new Set<string>();
  private readonly changedPlaces = new Set<string>();
  private changed = 0;
  private readonly groups = new Map<string, ChangeGroup & { on: Set<string> }>();
  private readonly hosts = new Map<string, HostTreatments>();
  private readonly decides: number[];
  private readonly before: readonly Rule[];
  private readonly after: readonly Rule[];
  private readonly keep: (change: string, link: ChangedLink) => void;

  /** `keep` is handed every link that changes, with the name of its group. */
  constructor(
    before: readonly Rule[],
    after: readonly Rule[],
    keep: (change: string, link: ChangedLink) => void = () => {},
  ) {
    this.before = before;
    this.after = after;
    this.keep = keep;
    this.decides = after.map(() => 0);
  }

  /** Asks both sets about one link. */
  add(link: TriedLink, facts: LinkFacts): void {
    const written = writtenOn(link);
    const was = resolve(this.before, facts, written);
    const is = resolve(this.after, facts, written);
    this.links += 1;
    this.places.add(link.place);
    this.countDeciders(is);
    const host = facts.end ?? facts.domain;
    if (facts.reach === "external" && host !== undefined) this.countHost(host, was, is);
    if (sameLook(was, is)) return;
    this.changed += 1;
    this.changedPlaces.add(link.place);
    const changed: ChangedLink = {
      id: link.id,
      page: link.place,
      anchor: link.words,
      href: link.href,
      before: lookOf(was),
      after: lookOf(is),
    };
    const change = changeInWords(was, is);
    let group = this.groups.get(change);
    if (!group) this.groups.set(change, (group = { change, links: 0, pages: 0, samples: [], on: new Set() }));
    group.links += 1;
    group.on.add(link.place);
    if (group.samples.length < MAX_SAMPLES) group.samples.push(changed);
    this.keep(change, changed);
  }

  private countDeciders({ trace }: Resolved): void {
    for (let at = 0; at < trace.length; at += 1) {
      const { decider } = trace[at]!;
      if (decider.kind === "rule" && !decidesBefore(trace, at, decider.index))
        this.decides[decider.index]! += 1;
    }
  }

  private countHost(host: string, was: Resolved, is: Resolved): void {
    let counts = this.hosts.get(host);
    if (!counts) this.hosts.set(host, (counts = { host, before: none(), after: none() }));
    counts.before[treatmentOf(was.rel)] += 1;
    counts.after[treatmentOf(is.rel)] += 1;
  }

  /** What all links together came to; hosts with most links first. */
  result(): Trial {
    const total = ({ after }: HostTreatments): number =>
      TREATMENTS.reduce((sum, treatment) => sum + after[treatment], 0);
    return {
      links: this.links,
      pages: this.places.size,
      changed: this.changed,
      changedPages: this.changedPlaces.size,
      groups: [...this.groups.values()]
        .sort((a, b) => b.links - a.links || (a.change < b.change ? -1 : 1))
        .map(({ on, ...group }) => ({ ...group, pages: on.size })),
      hosts: [...this.hosts.values()].sort((a, b) => total(b) - total(a) || (a.host < b.host ? -1 : 1)),
      decides: this.decides,
    };
  }
}

/** What changes from one look to another: tokens that come and go, then the tab. */
export function changeInWords(before: LinkLook, after: LinkLook): string {
  const words = [
    ...after.rel.filter((token) => !before.rel.includes(token)).map((token) => `+${token}`),
    ...before.rel.filter((token) => !after.rel.includes(token)).map((token) => `−${token}`),
  ];
  if (before.target !== after.target)
    words.push(
      after.target === "_blank" ? "new tab" : after.target === null ? "same tab" : `tab ${after.target}`,
    );
  return words.join(" ");
}

function decidesBefore(trace: Resolved["trace"], at: number, index: number): boolean {
  for (let earlier = 0; earlier < at; earlier += 1) {
    const { decider } = trace[earlier]!;
    if (decider.kind === "rule" && decider.index === index) return true;
  }
  return false;
}

function sameLook(a: LinkLook, b: LinkLook): boolean {
  return (
    a.target === b.target && a.rel.length === b.rel.length && a.rel.every((token) => b.rel.includes(token))
  );
}

function lookOf({ rel, target }: Resolved): LinkLook {
  return { rel, target };
}

function none(): Record<Treatment, number> {
  return { sponsored: 0, ugc: 0, nofollow: 0, plain: 0 };
}
