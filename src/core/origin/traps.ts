/** What makes endless addresses of one page: what it is, in words, and where it was noticed. */
export interface Trap {
  kind: "calendar" | "filters" | "session" | "growing";
  /** The path and parameters that its addresses have in common. */
  shape: string;
  sample: string;
  /** Addresses that were left out because of it. */
  left: number;
}

/** Names of parameters by which systems number their visitors. */
const SESSION =
  /^(?:phpsessid|jsessionid|sessionid|session_id|sess|sid|cfid|cftoken|aspsessionid\w*|zenid|oscsid)$/i;
/** Of one shape, so many addresses with a date in them are a calendar, and no archive that ends. */
const DATES = 60;
/** On one path, so many different queries are filters that multiply. */
const QUERIES = 40;
/** Steps of a path, and repeats of one step, beyond which it grows by being read. */
const DEEPEST = 16;
const SAME_STEPS = 3;

/**
 * Notices addresses that could be gone through for ever: calendars that know every month, filters that multiply, numbers of
 * visitors, paths that grow by links relative to themselves. Each address is asked once, in the order in which it is found.
 */
export class TrapWatch {
  private readonly traps = new Map<string, Trap>();
  private readonly counts = new Map<string, number>();

  /**
   * The address to read in place of this one, without what numbers a visitor; undefined where it would lead into a trap.
   * What a sitemap names is `isNamed`: the site itself says that it is a page.
   */
  admit(address: string, isNamed = false): string | undefined {
    const url = new URL(address);
    const plain = this.withoutSession(url);
    if (isNamed) return plain;
    const trap = this.growing(url) ?? this.filters(url) ?? this.calendar(url);
    if (trap === undefined) return plain;
    this.note(...trap, address);
    return undefined;
  }

  /** What was noticed, the most fruitful first. */
  noticed(): Trap[] {
    return [...this.traps.values()].sort((a, b) => b.left - a.left);
  }

  private note(kind: Trap["kind"], shape: string, sample: string): void {
    const trap = this.traps.get(`${kind} ${shape}`) ?? { kind, shape, sample, left: 0 };
    trap.left += 1;
    this.traps.set(`${kind} ${shape}`, trap);
  }

  private withoutSession(url: URL): string {
    const named = [...url.searchParams.keys()].filter((name) => SESSION.test(name));
    const path = url.pathname.replace(/;jsessionid=[^/;]{1,200}/i, "");
    if (named.length === 0 && path === url.pathname) return url.href;
    this.note("session", named[0] ?? ";jsessionid", url.href);
    // Other parameters stay as they are written: to parse and write them anew would change them.
    const query = url.search
      .slice(1)
      .split("&")
      .filter((pair) => !SESSION.test(pair.split("=")[0]!))
      .join("&");
    return `${url.origin}${path}${query === "" ? "" : `?${query}`}`;
  }

  private growing({ pathname }: URL): [Trap["kind"], string] | undefined {
    const steps = pathname.split("/").filter(Boolean);
    const repeated = steps.find((step) => steps.filter((other) => other === step).length >= SAME_STEPS);
    return repeated !== undefined || steps.length > DEEPEST
      ? ["growing", `/${repeated ?? steps.slice(0, 2).join("/")}/…`]
      : undefined;
  }

  private filters({ pathname, search, searchParams }: URL): [Trap["kind"], string] | undefined {
    if (search === "") return undefined;
    const count = this.count(`? ${pathname}`);
    const names = [...new Set(searchParams.keys())].sort();
    return count > QUERIES ? ["filters", `${pathname}?${names.join("&")}`] : undefined;
  }

  // A shape is an address with all its figures taken as one.
  private calendar({ pathname, search }: URL): [Trap["kind"], string] | undefined {
    const text = `${pathname}${search}`;
    if (!/(?:^|\D)(?:1[5-9]|2[0-9])\d\d[-/_]?(?:0?[1-9]|1[0-2])(?:\D|$)/.test(text)) {
      if (!/(?:year|month|date|day)=\d/i.test(text)) return undefined;
    }
    // An article below its day has words of its own: only what is figures alone is an entry of a calendar.
    const last = pathname.split("/").filter(Boolean).at(-1) ?? "";
    if (/\p{L}{3}/u.test(last) && !/(?:calendar|events?|archive|kalender|date)/i.test(pathname))
      return undefined;
    const shape = text.replace(/\d+/g, "#");
    return this.count(`# ${shape}`) > DATES ? ["calendar", shape] : undefined;
  }

  private count(key: string): number {
    const count = (this.counts.get(key) ?? 0) + 1;
    this.counts.set(key, count);
    return count;
  }
}
