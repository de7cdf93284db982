import type { Transform } from "node:stream";
import type { ChangedLink, FrontChanges } from "../../../core/origin/front/front-rewriter.ts";
import type { Coding } from "../../../core/origin/front/rewritable.ts";
import { ChangedPage, type Changing } from "./changed-page.ts";
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
}

/** The passage of a page whose links are changed and that comes as it is. */
export function changing(page: Changing, end: PassageEnd): Passage {
  return {
    write(chunk) {
      const bytes = page.take(chunk);
      return bytes.length === 0 || end.put(bytes);
    },
    end() {
      const rest = page.rest();
      if (rest.length > 0) end.put(rest);
      end.ended();
    },
    destroy: () => page.destroy(),
  };
}

/** The passage of one that comes coded: decoded and coded again. */
export function changingCoded(page: Changing, coding: Coding, end: PassageEnd): Passage {
  const measure = createMeasure();
  const decoder = decoderOf(coding);
  const encoder = encoderOf(coding);
  decoder.on("data", (chunk: Buffer) => {
    if (measure.isBeyond(chunk)) end.failed(new Error("the page grows beyond all measure as it is decoded"));
    if (!encoder.write(page.take(chunk))) wait(decoder, encoder);
  });
  decoder.on("end", () => encoder.end(page.rest()));
  encoder.on("data", (bytes: Buffer) => {
    if (!end.put(bytes)) encoder.pause();
  });
  encoder.on("end", () => end.ended());
  for (const stream of [decoder, encoder]) stream.on("error", (error) => end.failed(error));
  decoder.on("drain", () => end.drained());
  return {
    write(chunk) {
      measure.received(chunk);
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
  const page = new ChangedPage(changes, (link) => told.changed(link));
  const finish = (): void => {
    if (isOver) return;
    page.rest();
    told.ended(page.links);
  };
  if (coding === undefined)
    return {
      write: (chunk) => {
        page.take(chunk);
        return true;
      },
      end: finish,
      destroy: over,
    };
  const measure = createMeasure();
  const decoder = decoderOf(coding);
  decoder.on("data", (chunk: Buffer) => {
    isOver ||= measure.isBeyond(chunk);
    if (isOver) decoder.destroy();
    else page.take(chunk);
  });
  decoder.on("end", finish);
  decoder.on("error", over);
  return {
    write(chunk) {
      measure.received(chunk);
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
function createMeasure(): { received(chunk: Buffer): void; isBeyond(decoded: Buffer): boolean } {
  let received = 0;
  let read = 0;
  return {
    received: ({ length }) => void (received += length),
    isBeyond: ({ length }) => (read += length) > Math.max(MOST_DECODED, received * 100),
  };
}

function wait(from: Transform, to: Transform): void {
  from.pause();
  to.once("drain", () => from.resume());
}
