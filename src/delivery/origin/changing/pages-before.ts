import { LRUCache } from "lru-cache";
import type { FrontChanges } from "../../../core/origin/front/front-rewriter.ts";
import { ChangedPage, type Changing } from "./changed-page.ts";

const MOST_BYTES = 32 * 1024 * 1024;
/** A longer page is read each time: it would push out too many others. */
const MOST_PAGE = 1024 * 1024;
/** What a link becomes may hang on the hour (a short link that ends): what a page became holds so long. */
const HOLDS_MS = 60_000;
/** So finely is known which part of what came became which part of what went. */
const STEP = 8 * 1024;
/** Part of a page that came and is not settled waits so long for more: then it is read after all. */
const WAITS_MS = 20;

/** A page as it came and what it became, with how far the one was settled by how much of the other. */
interface Became {
  came: Buffer;
  went: Buffer;
  steps: readonly { came: number; went: number }[];
  links: number;
  changed: number;
}

/**
 * What pages became when they came last. One that comes again byte by byte as it did becomes the same without being read; at the
 * first byte that differs it is read from its beginning, and goes on from where it was.
 */
export class PagesBefore {
  private readonly kept = new LRUCache<string, Became>({
    maxSize: MOST_BYTES,
    ttl: HOLDS_MS,
    sizeCalculation: ({ came, went }) => came.length + went.length + 1_000,
  });

  /**
   * A page that passes. `key` names the page and all that it is changed by; `put` takes what goes on without a piece having come.
   */
  passing(key: string, changes: () => FrontChanges, put: (bytes: Buffer) => void): Changing {
    return new PageAgain(this.kept.get(key), changes, put, (became) => void this.kept.set(key, became));
  }
}

class PageAgain implements Changing {
  private readonly before: Became | undefined;
  private readonly changes: () => FrontChanges;
  private readonly put: (bytes: Buffer) => void;
  private readonly keep: (became: Became) => void;
  /** How much of it came, how much went, and how many steps of the last time that were. */
  private came = 0;
  private went = 0;
  private step = 0;
  private waiting: NodeJS.Timeout | undefined;
  /** The page that is read, once it is; what it answers first that went already is left out. */
  private read: ChangedPage | undefined;
  private leftOut = 0;
  private record: { came: Buffer[]; went: Buffer[]; steps: { came: number; went: number }[] } | undefined;
  private recorded = { came: 0, went: 0 };

  constructor(
    before: Became | undefined,
    changes: () => FrontChanges,
    put: (bytes: Buffer) => void,
    keep: (became: Became) => void,
  ) {
    this.before = before;
    this.changes = changes;
    this.put = put;
    this.keep = keep;
    if (!before) this.begin();
  }

  take(piece: Buffer): Buffer {
    clearTimeout(this.waiting);
    if (this.read) return this.reading(piece);
    const { came, went, steps } = this.before!;
    const end = this.came + piece.length;
    if (end > came.length || piece.compare(came, this.came, end) !== 0) return this.anew(piece);
    this.came = end;
    while (this.step < steps.length && steps[this.step]!.came <= end) this.step += 1;
    const settled = this.step === 0 ? { came: 0, went: 0 } : steps[this.step - 1]!;
    // More of it usually comes at once; where it does not, what came is worth more than that it was read before.
    if (settled.came < end && end < came.length)
      this.waiting = setTimeout(() => this.put(this.anew(Buffer.alloc(0))), WAITS_MS);
    const from = this.went;
    this.went = settled.went;
    return went.subarray(from, settled.went);
  }

  rest(): Buffer {
    clearTimeout(this.waiting);
    if (!this.read && this.came === this.before!.came.length) return this.before!.went.subarray(this.went);
    const open = this.read ? undefined : this.anew(Buffer.alloc(0));
    const last = this.noted(this.read!.rest());
    if (this.record)
      this.keep({
        came: Buffer.concat(this.record.came),
        went: Buffer.concat(this.record.went),
        steps: this.record.steps,
        links: this.read!.links,
        changed: this.read!.changed,
      });
    const fresh = this.fresh(last);
    return open ? Buffer.concat([open, fresh]) : fresh;
  }

  get links(): number {
    return (this.read ?? this.before!).links;
  }

  get changed(): number {
    return (this.read ?? this.before!).changed;
  }

  destroy(): void {
    clearTimeout(this.waiting);
  }

  private begin(): void {
    this.read = new ChangedPage(this.changes());
    this.record = { came: [], went: [], steps: [] };
  }

  // Otherwise than the last time: what came alike is read now, too.
  private anew(piece: Buffer): Buffer {
    const alike = this.before!.came.subarray(0, this.came);
    this.leftOut = this.went;
    this.begin();
    const again = this.reading(alike);
    return piece.length === 0 ? again : Buffer.concat([again, this.reading(piece)]);
  }

  private reading(piece: Buffer): Buffer {
    if (this.record && this.recorded.came + piece.length > MOST_PAGE) this.record = undefined;
    if (!this.record) return this.fresh(this.read!.take(piece));
    const settled: Buffer[] = [];
    for (let at = 0; at < piece.length; at += STEP) {
      const part = piece.subarray(at, at + STEP);
      this.record.came.push(part);
      this.recorded.came += part.length;
      settled.push(this.fresh(this.noted(this.read!.take(part))));
      this.record.steps.push({ ...this.recorded });
    }
    return settled.length === 1 ? settled[0]! : Buffer.concat(settled);
  }

  private noted(bytes: Buffer): Buffer {
    this.record?.went.push(bytes);
    this.recorded.went += bytes.length;
    return bytes;
  }

  private fresh(bytes: Buffer): Buffer {
    if (this.leftOut === 0) return bytes;
    const out = Math.min(this.leftOut, bytes.length);
    this.leftOut -= out;
    return bytes.subarray(out);
  }
}
