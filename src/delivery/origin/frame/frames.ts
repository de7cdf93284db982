import { cutFrame, type Frame } from "../../../core/origin/frame/frame.ts";
import { FrontRewriter } from "../../../core/origin/front/front-rewriter.ts";
import { textOf } from "../../../core/origin/text-of.ts";
import type { SiteIndex } from "../../sites/site-index.ts";

const FRESH_MS = 60_000;
/** Where the origin cannot be had, what was had of it serves on for so long. */
const KEPT_MS = 86_400_000;

/** A frame as it was cut, told apart from others by its number. */
export interface FrameNow extends Frame {
  stamp: number;
}

/** The frames of sites whose own pages have the look of a page that stands elsewhere. */
export interface Frames {
  /** The frame of a site's pages as it is now; undefined where it has none, or it cannot be had. */
  of(site: SiteIndex): Promise<FrameNow | undefined>;
}

interface Held {
  /** The site as it was when it was asked for: another one may have other rules. */
  of: SiteIndex["site"];
  at: number;
  frame: Promise<FrameNow | undefined>;
  last: FrameNow | undefined;
  lastAt: number;
}

/** Fetches them when they are wanted, and again when they are a minute old or the site has changed, behind the reader's back. */
export function createFrames(
  read: (site: SiteIndex, path: string) => Promise<{ bytes: Uint8Array; type: string }>,
  report: (message: string, error: unknown) => void,
): Frames {
  const held = new Map<string, Held>();
  let stamp = 0;

  async function fetched(
    site: SiteIndex,
    { path, selector }: { path: string; selector: string },
  ): Promise<FrameNow> {
    const { bytes, type } = await read(site, path);
    const cut = cutFrame(textOf(bytes, type), selector);
    if (!cut.ok) throw new Error(`${path} ${cut.reason}`);
    return {
      ...(site.site.origin?.passes === "on" ? withLinks(cut.frame, site) : cut.frame),
      stamp: (stamp += 1),
    };
  }
  return {
    async of(site) {
      const { origin, id, name } = site.site;
      if (origin?.comes !== "front" || !origin.frame) return undefined;
      const known = held.get(id);
      const now = performance.now();
      if (known?.of === site.site && now - known.at < FRESH_MS) return known.frame;
      const last =
        known && isSameFrame(known.of, site.site) && now - known.lastAt < KEPT_MS ? known.last : undefined;
      const next: Held = {
        of: site.site,
        at: now,
        frame: Promise.resolve(last),
        last,
        lastAt: known?.lastAt ?? now,
      };
      const frame = fetched(site, origin.frame).then(
        (made) => {
          next.last = made;
          next.lastAt = performance.now();
          next.frame = Promise.resolve(made);
          return made;
        },
        (error: unknown) => {
          report(`The frame of ${name} could not be had.`, error);
          return last;
        },
      );
      if (!last) next.frame = frame;
      held.set(id, next);
      return next.frame;
    },
  };
}

function isSameFrame(a: SiteIndex["site"], b: SiteIndex["site"]): boolean {
  const told = ({ origin }: SiteIndex["site"]): string => JSON.stringify([origin?.address, origin?.frame]);
  return told(a) === told(b);
}

// Its menus and footers carry links as any page of the origin does.
function withLinks(frame: Frame, site: SiteIndex): Frame {
  const changed = (html: string): string => {
    const { rules } = site.site;
    const rewriter = new FrontRewriter({ rules, site: site.links, page: "", category: "" }, () => undefined);
    const bytes = Buffer.from(html).toString("latin1");
    return Buffer.from(rewriter.write(bytes) + rewriter.end(), "latin1").toString();
  };
  return { before: frame.before, between: changed(frame.between), after: changed(frame.after) };
}
