import {
  FrontRewriter,
  type ChangedLink,
  type FrontChanges,
} from "../../../core/origin/front/front-rewriter.ts";
import { isUtf16 } from "../../../core/links/rewrite/source-bytes.ts";

/** A page that comes in pieces and is changed as it goes. */
export interface Changing {
  /** Takes a piece; answers what is settled by it. */
  take(piece: Buffer): Buffer;
  /** Answers what was still open at the end. */
  rest(): Buffer;
  /** How many links it has and how many of them are changed, as far as it was read. */
  readonly links: number;
  readonly changed: number;
  /** Nobody waits for it any more. */
  destroy(): void;
}

/** Changes the links of a page. One in UTF-16 goes on as it is. */
export class ChangedPage implements Changing {
  changed = 0;
  private readonly rewriter: FrontRewriter;
  private isFirst = true;
  private isOther = false;

  constructor(changes: FrontChanges, noted?: (link: ChangedLink) => void) {
    this.rewriter = new FrontRewriter(changes, (link) => {
      this.changed += 1;
      noted?.(link);
    });
  }

  take(piece: Buffer): Buffer {
    if (this.isFirst) this.isOther = isUtf16(piece);
    this.isFirst = false;
    if (this.isOther) return piece;
    return Buffer.from(this.rewriter.write(piece.toString("latin1")), "latin1");
  }

  rest(): Buffer {
    return this.isOther ? Buffer.alloc(0) : Buffer.from(this.rewriter.end(), "latin1");
  }

  get links(): number {
    return this.rewriter.links;
  }

  destroy(): void {}
}
