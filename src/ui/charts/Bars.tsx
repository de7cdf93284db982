import { useEffect, useRef, useState } from "react";
import { serverFrame } from "../frame/frame.ts";
import { later } from "../frame/later.tsx";
import type { BarsChart } from "./chart.ts";

/** How wide charts are drawn before anybody knows how wide they stand: as in a window of 1280 pixels. */
const USUAL_WIDTH_PX = 1248;
/** So much wider or narrower than it was drawn, a drawing is still read as it is. */
const STRETCH = 0.15;

type BarsProps = BarsChart & {
  /** The chart in words, for who does not see it. */
  label: string;
  /** How wide it usually stands. */
  usualWidthPx?: number;
};

const LiveBars = later<LiveProps>(async () => (await import("./LiveBars.tsx")).LiveBars, Standing);
type LiveProps = BarsChart & { label: string; drawing: string };

/**
 * Bars over days, hours or names, stacked by series. The server's drawing stands until somebody points at it, or it is no
 * longer what is to be seen: the library that draws is fetched then.
 */
export function Bars({ label, usualWidthPx = USUAL_WIDTH_PX, ...bars }: BarsProps) {
  const place = useRef<HTMLDivElement>(null);
  const [left, leave] = useState<string>();
  const wanted = JSON.stringify(bars);
  const [first] = useState(wanted);
  useEffect(() => {
    const element = place.current;
    if (!element) return undefined;
    const live = (): void => leave(element.querySelector("svg")?.outerHTML ?? "");
    if (wanted === first && isRead(element)) {
      const resized = (): void => {
        if (!isRead(element)) live();
      };
      element.addEventListener("pointerenter", live, { once: true });
      addEventListener("resize", resized);
      return () => {
        element.removeEventListener("pointerenter", live);
        removeEventListener("resize", resized);
      };
    }
    const inSight = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) live();
    });
    inSight.observe(element);
    return () => inSight.disconnect();
  }, [wanted, first]);
  if (left !== undefined) return <LiveBars {...bars} label={label} drawing={left} />;
  const drawing = serverFrame()?.drawBars(bars, usualWidthPx) ?? "";
  return (
    <div ref={place}>
      <Standing {...bars} label={label} drawing={drawing} />
    </div>
  );
}

// What the server drew stays when a screen is taken over: nobody compares what is set as HTML.
function Standing({ label, heightPx, drawing }: LiveProps) {
  return (
    <div
      role="img"
      aria-label={label}
      className="w-full contain-inline-size [&>svg]:size-full"
      style={{ height: heightPx }}
      dangerouslySetInnerHTML={{ __html: drawing }}
    />
  );
}

function isRead(place: HTMLElement): boolean {
  const drawn = place.querySelector("svg")?.viewBox.baseVal.width;
  return drawn !== undefined && Math.abs(place.clientWidth / drawn - 1) < STRETCH;
}
