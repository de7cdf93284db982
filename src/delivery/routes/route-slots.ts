import type { Notice } from "../../core/routes/route.ts";
import type { AfterEnd, QueryMode, RouteStatus } from "../../core/routes/choices.ts";
import { ROUTE_STATUSES } from "../../core/routes/choices.ts";
import { withParameters } from "../../core/routes/chain/parameters.ts";
import { headerSafe } from "../../core/routes/chain/header-safe.ts";
import type { DeliveredMore, DeliveredRoute } from "../../store/routes/delivered-route.ts";

/** A route as a request meets it. */
export interface CompiledRoute {
  id: string;
  status: RouteStatus;
  /** Absolute or site-relative address, fixed parameters in it, fit for a header; null for gone. */
  destination: string | null;
  query: QueryMode;
  counted: boolean;
  replacesPage: boolean;
  /** Milliseconds since the epoch; 0 and Infinity where there is no limit. */
  from: number;
  until: number;
  afterEnd: AfterEnd;
  endDestination: string | null;
  robots: string | undefined;
  notice: Notice | null;
}

type Rare = Omit<CompiledRoute, "id" | "status" | "destination" | "counted">;

const PLAIN: Rare = {
  query: "drop",
  replacesPage: false,
  from: 0,
  until: Infinity,
  afterEnd: "nothing",
  endDestination: null,
  robots: undefined,
  notice: null,
};
const COUNTED = 8;

/**
 * Every route of the process, in columns: an object a route took 750 bytes, and a million of them did not fit
 * beside the rest; a slot in these takes a third of that (measured by `npm run bench -- redirects`). What few
 * routes have lies in a map of its own.
 */
export class RouteSlots {
  private readonly slots = new Map<number, number>();
  private readonly free: number[] = [];
  private ids = new Float64Array(1024);
  private flags = new Uint8Array(1024);
  private readonly destinations: (string | null)[] = [];
  private readonly keys: (string | string[])[] = [];
  private readonly hosts: (string | null)[] = [];
  private readonly caseInsensitive: boolean[] = [];
  private readonly rare = new Map<number, Rare>();

  /** Number of routes held. */
  get size(): number {
    return this.slots.size;
  }

  /** The slot of a route; undefined when it is not held. */
  slotOf(id: string): number | undefined {
    return this.slots.get(Number(id));
  }

  /** Takes a route in and answers its slot. */
  put(route: DeliveredRoute): number {
    const id = Number(route.id);
    const slot = this.slots.get(id) ?? this.free.pop() ?? this.destinations.length;
    if (slot >= this.ids.length) this.grow();
    this.slots.set(id, slot);
    this.ids[slot] = id;
    this.flags[slot] = ROUTE_STATUSES.indexOf(route.status) | (route.counted ? COUNTED : 0);
    this.destinations[slot] =
      route.destination === null
        ? null
        : headerSafe(withParameters(route.destination, route.more?.parameters ?? ""));
    this.keys[slot] = route.keys.length === 1 ? route.keys[0]! : route.keys;
    this.hosts[slot] = route.host;
    this.caseInsensitive[slot] = route.caseInsensitive;
    if (route.more) this.rare.set(slot, rareOf(route.more));
    else this.rare.delete(slot);
    return slot;
  }

  /** Gives a slot back. */
  remove(slot: number): void {
    this.slots.delete(this.ids[slot]!);
    this.rare.delete(slot);
    this.destinations[slot] = null;
    this.keys[slot] = [];
    this.free.push(slot);
  }

  /** Where a route is found: its host (null: all), its stored keys, whether letter case counts. */
  placesOf(slot: number): { host: string | null; keys: readonly string[]; caseInsensitive: boolean } {
    const keys = this.keys[slot]!;
    return {
      host: this.hosts[slot]!,
      keys: typeof keys === "string" ? [keys] : keys,
      caseInsensitive: this.caseInsensitive[slot]!,
    };
  }

  /** The route in a slot. */
  read(slot: number): CompiledRoute {
    const flags = this.flags[slot]!;
    const rare = this.rare.size === 0 ? PLAIN : (this.rare.get(slot) ?? PLAIN);
    return {
      id: String(this.ids[slot]),
      status: ROUTE_STATUSES[flags & 7]!,
      destination: this.destinations[slot]!,
      counted: (flags & COUNTED) !== 0,
      query: rare.query,
      replacesPage: rare.replacesPage,
      from: rare.from,
      until: rare.until,
      afterEnd: rare.afterEnd,
      endDestination: rare.endDestination,
      robots: rare.robots,
      notice: rare.notice,
    };
  }

  private grow(): void {
    const ids = new Float64Array(this.ids.length * 2);
    ids.set(this.ids);
    this.ids = ids;
    const flags = new Uint8Array(this.flags.length * 2);
    flags.set(this.flags);
    this.flags = flags;
  }
}

function rareOf(more: DeliveredMore): Rare {
  const robots = [more.noindex ? "noindex" : "", more.nofollow ? "nofollow" : ""].filter(Boolean).join(", ");
  return {
    query: more.query,
    replacesPage: more.replacesPage,
    from: more.validFrom ? Date.parse(more.validFrom) : 0,
    until: more.validUntil ? Date.parse(more.validUntil) : Infinity,
    afterEnd: more.afterEnd,
    endDestination: more.endDestination && headerSafe(withParameters(more.endDestination, more.parameters)),
    robots: robots || undefined,
    notice: more.notice,
  };
}
