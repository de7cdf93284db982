import { BarChart, LineChart } from "echarts/charts";
import {
  AriaComponent,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
} from "echarts/components";
import { init, use as register, type EChartsType } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import { shortDay } from "../format/format.ts";
import { isDay } from "../format/iso-day.ts";
import * as say from "../words.ts";

register([
  BarChart,
  LineChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  MarkLineComponent,
  AriaComponent,
  SVGRenderer,
]);

/** One bar, or one stack of them: its label, and a number for each series. */
export interface BarsRow {
  label: string;
  [field: string]: unknown;
}

export interface Series {
  name: string;
  /** Where a row has its number. */
  field: string;
  /** A colour token. */
  color: string;
  /** Series of one stack stand on each other; those of different stacks side by side. */
  stack?: string;
  /** Drawn lightly, as what was. */
  faint?: boolean;
}

/** A moment in the chart, named: a change of the route. */
export interface Mark {
  key: string;
  name: string;
}

interface BarsProps {
  rows: readonly BarsRow[];
  /** The first series of the same rows of the period before, drawn as a line. */
  before?: readonly BarsRow[];
  series: readonly Series[];
  /** The chart in words, for who does not see it. */
  label: string;
  className: string;
  marks?: readonly Mark[];
  bare?: boolean;
  /** Bars lie on their side, as lists of names want it. */
  lying?: boolean;
}

/** Bars over days, hours or names, stacked by series. */
export function Bars(props: BarsProps) {
  const element = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType>(undefined);
  const drawn = useRef(() => {});
  const { label, className } = props;
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
      chart.current?.setOption(optionOf(props, element.current!.clientWidth, colorsOf(element.current!)), {
        notMerge: true,
      });
    drawn.current = draw;
    draw();
    const scheme = matchMedia("(prefers-color-scheme: dark)");
    scheme.addEventListener("change", draw);
    return () => scheme.removeEventListener("change", draw);
  });
  // Its drawing has a width in pixels, which must not keep what stands around it from growing narrower.
  return <div ref={element} role="img" aria-label={label} className={`contain-inline-size ${className}`} />;
}

const dayInWords = (name: string): string => (isDay(name) ? shortDay(name) : name);
const FEW_NAMES = 12;
const LEFT_PX = 44;
const RIGHT_PX = 12;
const LYING_LEFT_PX = 210;
const BETWEEN_NAMES_PX = 8;

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

function optionOf(props: BarsProps, width: number, color: (name: string) => string) {
  const { series, before, marks = [], bare, lying } = props;
  // Names are read from the top down, and an axis grows upwards.
  const rows = lying ? [...props.rows].reverse() : props.rows;
  const text = { color: color("--color-quiet"), fontFamily: "Commissioner Variable" };
  const names = {
    type: "category",
    data: rows.map(({ label }) => label),
    axisLabel: {
      ...text,
      ...(lying ? { width: 200, overflow: "truncate" } : {}),
      // A few names are all written out; days and long lists leave some out.
      ...(!lying && rows.length <= FEW_NAMES && !rows.some(({ label }) => isDay(label))
        ? {
            interval: 0,
            width: (width - LEFT_PX - RIGHT_PX) / rows.length - BETWEEN_NAMES_PX,
            overflow: "truncate",
          }
        : {}),
      formatter: dayInWords,
    },
    axisTick: { show: false },
    axisLine: { lineStyle: { color: color("--color-line") } },
  };
  const numbers = {
    type: "value",
    minInterval: 1,
    show: !bare,
    axisLabel: text,
    splitLine: { lineStyle: { color: color("--color-line") } },
  };
  return {
    animation: false,
    textStyle: text,
    grid: bare
      ? { left: 0, right: 0, top: 6, bottom: 18 }
      : { left: lying ? LYING_LEFT_PX : LEFT_PX, right: RIGHT_PX, top: 36, bottom: 28 },
    ...(bare
      ? {}
      : {
          legend: {
            top: 0,
            left: 0,
            itemWidth: 12,
            itemHeight: 12,
            textStyle: text,
            selected: { "HEAD requests": false, Prefetches: false },
          },
        }),
    tooltip: {
      trigger: "axis",
      axisPointer: {
        type: "shadow",
        label: { formatter: ({ value }: { value: unknown }) => dayInWords(String(value)) },
      },
    },
    xAxis: lying ? numbers : names,
    yAxis: lying ? names : numbers,
    series: [
      ...series.map(({ name, field, color: token, stack, faint }, index) => ({
        type: "bar",
        name,
        stack: stack ?? "all",
        data: rows.map((row) => row[field]),
        itemStyle: { color: color(token), opacity: faint ? 0.4 : 1 },
        barCategoryGap: "25%",
        barMaxWidth: 72,
        ...(index === 0 && marks.length > 0
          ? {
              markLine: {
                symbol: ["none", "none"],
                lineStyle: { color: color("--color-ink"), type: "dotted" },
                label: {
                  ...text,
                  formatter: "{b}",
                  rotate: 0,
                  position: "insideEndTop",
                  width: 90,
                  overflow: "truncate",
                },
                data: marks.map(({ key, name: title }) => ({ name: title, xAxis: key })),
              },
            }
          : {}),
      })),
      ...(before
        ? [
            {
              type: "line",
              name: say.peoplePeriodBefore,
              data: before.map((row) => row[series[0]!.field]),
              symbol: "none",
              lineStyle: { color: color("--color-ink"), width: 1.4, type: "dashed" },
              itemStyle: { color: color("--color-ink") },
            },
          ]
        : []),
    ],
  };
}
