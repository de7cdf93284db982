import type { Transform } from "node:stream";
import {
  FrontRewriter,
  type ChangedLink,
  type FrontChanges,
} from "../../core/origin/front/front-rewriter.ts";
import type { Coding } from "../../core/origin/front/rewritable.ts";
import { isUtf16 } from "../../core/links/rewrite/source-bytes.ts";
import { decoderOf, encoderOf, MOST_DECODED } from "./coded.ts";

/** What a page's body goes through on its way; `write` is false when it is to be waited for `onDrain`. */
export interface Passage {
  write(chunk: Buffer): boolean;
  end(): void;
  destroy(): void;
}

/** Where a passage leads, and what it tells. */
export interface PassageEnd {
  /** False when it is to be waited for. */
  put(bytes: Buffer): boolean;
  ended(): void;
  drained(): void;
  failed(error: Error): void;
  changed(link: ChangedLink): void;
}

/** Links of a page that comes in pieces, counted; what the page becomes comes out of it. */
class Pages {
  private readonly rewriter: FrontRewriter;
  private isFirst = true;
  private isOther = false;
  private read = 0;
  private readonly end_: PassageEnd;
  private readonly most: () => number;

  /** `most`: so many bytes may it have by now. */
  constructor(changes: FrontChanges, end: PassageEnd, most: () => number) {
    this.end_ = end;
    this.most = most;
    this.rewriter = new FrontRewriter(changes, (link) => end.changed(link));
  }

  take(chunk: Buffer): Buffer {
    if (this.isFirst) this.isOther = isUtf16(chunk);
    this.isFirst = false;
    this.read += chunk.length;
    if (this.read > this.most())
      this.end_.failed(new Error("the page grows beyond all measure as it is decoded"));
    if (this.isOther) return chunk;
    return Buffer.from(this.rewriter.write(chunk.toString("latin1")), "latin1");
  }

  rest(): Buffer {
    return this.isOther ? Buffer.alloc(0) : Buffer.from(this.rewriter.end(), "latin1");
  }

  get links(): number {
    return this.rewriter.links;
  }
}

/** The passage of a page whose links are changed: decoded and coded again where it is coded. */
export function changing(
  changes: FrontChanges,
  coding: Coding | undefined,
  end: PassageEnd,
): Passage & { readonly links: number } {
  let received = 0;
  const pages = new Pages(changes, end, () => (coding === undefined ? Infinity : mostOf(received)));
  if (coding === undefined)
    return {
      get links() {
        return pages.links;
      },
      write(chunk) {
        const bytes = pages.take(chunk);
        return bytes.length === 0 || end.put(bytes);
      },
      end() {
        const rest = pages.rest();
        if (rest.length > 0) end.put(rest);
        end.ended();
      },
      destroy() {},
    };
  const decoder = decoderOf(coding);
  const encoder = encoderOf(coding);
  decoder.on("data", (chunk: Buffer) => {
    if (!encoder.write(pages.take(chunk))) wait(decoder, encoder);
  });
  decoder.on("end", () => encoder.end(pages.rest()));
  encoder.on("data", (bytes: Buffer) => {
    if (!end.put(bytes)) encoder.pause();
  });
  encoder.on("end", () => end.ended());
  for (const stream of [decoder, encoder]) stream.on("error", (error) => end.failed(error));
  decoder.on("drain", () => end.drained());
  return {
    get links() {
      return pages.links;
    },
    write(chunk) {
      received += chunk.length;
      encoder.resume();
      return decoder.write(chunk);
    },
    end: () => void decoder.end(),
    destroy() {
      decoder.destroy();
      encoder.destroy();
    },
  };
}

/** Looks at a page that goes on as it is, for what would be changed of it. What cannot be decoded is let be. */
export function looking(
  changes: FrontChanges,
  coding: Coding | undefined,
  told: { changed(link: ChangedLink): void; ended(links: number): void },
): Pick<Passage, "write" | "end" | "destroy"> {
  let isOver = false;
  const over = (): void => void (isOver = true);
  const end: PassageEnd = {
    put: () => true,
    ended: () => undefined,
    drained: () => undefined,
    failed: over,
    changed: (link) => told.changed(link),
  };
  let received = 0;
  const pages = new Pages(changes, end, () => (coding === undefined ? Infinity : mostOf(received)));
  const finish = (): void => {
    if (isOver) return;
    pages.rest();
    told.ended(pages.links);
  };
  if (coding === undefined)
    return {
      write: (chunk) => {
        if (!isOver) pages.take(chunk);
        return true;
      },
      end: finish,
      destroy: over,
    };
  const decoder = decoderOf(coding);
  decoder.on("data", (chunk: Buffer) => {
    if (!isOver) pages.take(chunk);
    if (isOver) decoder.destroy();
  });
  decoder.on("end", finish);
  decoder.on("error", over);
  return {
    write(chunk) {
      received += chunk.length;
      return isOver || decoder.write(chunk) || true;
    },
    end: () => void decoder.end(),
    destroy() {
      over();
      decoder.destroy();
    },
  };
}

// What is packed a hundred times smaller than it is, and large, was made to be so.
function mostOf(received: number): number {
  return Math.max(MOST_DECODED, received * 100);
}

function wait(from: Transform, to: Transform): void {
  from.pause();
  to.once("drain", () => from.resume());
}
