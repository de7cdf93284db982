import { BarChart } from "echarts/charts";
import { AriaComponent, GridComponent, LegendComponent, TooltipComponent } from "echarts/components";
import { init, use as register, type EChartsType } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import type { ClicksAnswer, ClicksRow } from "../../core/objects/clicks.ts";
import type { Site } from "../../core/objects/site.ts";
import { useClicks } from "./use-clicks.ts";

register([BarChart, GridComponent, LegendComponent, TooltipComponent, AriaComponent, SVGRenderer]);

type Series = { name: string; field: "clicks" | "bots" | "prefetches" | "heads"; color: string };

const SERIES: readonly Series[] = [
  { name: "Persons", field: "clicks", color: "--color-accent" },
  { name: "Robots", field: "bots", color: "--color-hemp" },
  { name: "Prefetches", field: "prefetches", color: "--color-quiet" },
  { name: "HEAD requests", field: "heads", color: "--color-line" },
];

/** Clicks per day as bars: persons in the foreground, the others to be added by their legend. */
export function DaysChart({ answer }: { answer: ClicksAnswer }) {
  const { total } = answer;
  const label = `Clicks per day from ${answer.from} to ${answer.to}: ${total.clicks} by persons, ${total.bots} by robots, ${total.prefetches} prefetches. The table holds the same numbers.`;
  return <Bars rows={answer.items} series={SERIES} label={label} className="h-96 w-full" />;
}

/** A route's last 60 days, small. */
export function RouteClicks({ site, routeId }: { site: Site; routeId: string }) {
  const clicks = useClicks(site, { by: "day", span: 60, route: routeId });
  if (!clicks.data) return <div className="h-28" />;
  return (
    <Bars
      rows={clicks.data.items}
      series={SERIES.slice(0, 1)}
      label={`Clicks in the last 60 days: ${clicks.data.total.clicks}`}
      className="h-28 w-full"
      bare
    />
  );
}

function Bars(props: {
  rows: ClicksRow[];
  series: readonly Series[];
  label: string;
  className: string;
  bare?: boolean;
}) {
  const { rows, series, bare } = props;
  const element = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType>(undefined);
  useEffect(() => {
    const made = init(element.current, undefined, { renderer: "svg" });
    chart.current = made;
    const observer = new ResizeObserver(() => made.resize());
    observer.observe(element.current!);
    return () => {
      observer.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => {
    const draw = (): void =>
      chart.current?.setOption(optionOf(rows, series, bare ?? false, colorsOf(element.current!)));
    draw();
    const scheme = matchMedia("(prefers-color-scheme: dark)");
    scheme.addEventListener("change", draw);
    return () => scheme.removeEventListener("change", draw);
  }, [rows, series, bare]);
  return <div ref={element} role="img" aria-label={props.label} className={props.className} />;
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

function optionOf(
  rows: readonly ClicksRow[],
  series: readonly Series[],
  bare: boolean,
  color: (name: string) => string,
) {
  const text = { color: color("--color-quiet"), fontFamily: "Commissioner Variable" };
  return {
    animation: false,
    textStyle: text,
    grid: bare ? { left: 0, right: 0, top: 6, bottom: 18 } : { left: 44, right: 8, top: 36, bottom: 28 },
    ...(bare
      ? {}
      : {
          legend: {
            top: 0,
            left: 0,
            icon: "rect",
            itemWidth: 12,
            itemHeight: 12,
            textStyle: text,
            selected: { "HEAD requests": false },
          },
        }),
    tooltip: { trigger: "axis", axisPointer: { type: "shadow" } },
    xAxis: {
      type: "category",
      data: rows.map(({ label }) => label),
      axisLabel: { ...text, formatter: (day: string) => day.slice(5).replace("-", "/") },
      axisTick: { show: false },
      axisLine: { lineStyle: { color: color("--color-line") } },
    },
    yAxis: {
      type: "value",
      minInterval: 1,
      show: !bare,
      axisLabel: text,
      splitLine: { lineStyle: { color: color("--color-line") } },
    },
    series: series.map(({ name, field, color: token }) => ({
      type: "bar",
      name,
      stack: "all",
      data: rows.map((row) => row[field]),
      itemStyle: { color: color(token) },
      barCategoryGap: "25%",
    })),
  };
}
