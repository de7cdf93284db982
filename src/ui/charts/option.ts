import { shortDay } from "../format/format.ts";
import { isDay } from "../format/iso-day.ts";
import * as say from "../words.ts";
import type { BarsChart } from "./chart.ts";

const dayInWords = (name: string): string => (isDay(name) ? shortDay(name) : name);
const FEW_NAMES = 12;
const LEFT_PX = 44;
const RIGHT_PX = 12;
const LYING_LEFT_PX = 210;
const BETWEEN_NAMES_PX = 8;

/** What the charts' library is to draw of a chart, `width` pixels wide; `color` gives the colour of a token. */
export function optionOf(chart: BarsChart, width: number, color: (token: string) => string) {
  const { series, before, marks = [], bare, lying } = chart;
  // Names are read from the top down, and an axis grows upwards.
  const rows = lying ? [...chart.rows].reverse() : chart.rows;
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
            inactiveColor: color("--color-line"),
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
