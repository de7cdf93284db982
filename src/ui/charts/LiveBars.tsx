import { useEffect, useRef } from "react";
import type { BarsChart } from "./chart.ts";
import { init, type EChartsType } from "./engine.ts";
import { optionOf } from "./option.ts";

/** Bars that answer the pointer and grow with their place. */
export function LiveBars({ label, ...bars }: BarsChart & { label: string }) {
  const element = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType>(undefined);
  const drawn = useRef(() => {});
  useEffect(() => {
    const made = init(element.current, undefined, { renderer: "svg" });
    chart.current = made;
    const observer = new ResizeObserver(() => {
      made.resize();
      drawn.current();
    });
    observer.observe(element.current!);
    return () => {
      observer.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => {
    const draw = (): void =>
      chart.current?.setOption(optionOf(bars, element.current!.clientWidth, colorsOf(element.current!)), {
        notMerge: true,
      });
    drawn.current = draw;
    draw();
    const scheme = matchMedia("(prefers-color-scheme: dark)");
    scheme.addEventListener("change", draw);
    return () => scheme.removeEventListener("change", draw);
  });
  // Its drawing has a width in pixels, which must not keep what stands around it from growing narrower.
  return (
    <div
      ref={element}
      role="img"
      aria-label={label}
      className="w-full contain-inline-size"
      style={{ height: bars.heightPx }}
    />
  );
}

// light-dark() is resolved by letting the browser compute a colour that uses it.
function colorsOf(element: HTMLElement): (name: string) => string {
  return (name) => {
    const probe = document.createElement("span");
    probe.style.color = `var(${name})`;
    element.append(probe);
    const color = getComputedStyle(probe).color;
    probe.remove();
    return color;
  };
}
