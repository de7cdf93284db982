import assert from "node:assert/strict";
import { test } from "node:test";
import type { BarsChart } from "./chart.ts";
import { drawnBars } from "./drawn-bars.ts";

const series = [
  { name: "People", field: "clicks", color: "--color-accent" },
  { name: "Robots", field: "bots", color: "--color-hemp" },
];
const rows = [
  { label: "first nights", clicks: 12, bots: 3 },
  { label: "<b>bold</b> & more", clicks: 0, bots: 0 },
];
const chart: BarsChart = { rows, series, heightPx: 200 };

test("a chart is drawn without a browser, in the size that was asked for and the colours of whoever looks", () => {
  const svg = drawnBars(chart, 640);
  assert.match(svg, /^<svg [^>]*width="640" height="200"/);
  assert.match(svg, /fill="var\(--color-accent\)"/);
  assert.match(svg, /fill="var\(--color-hemp\)"/);
  assert.match(svg, /first nights/);
});

test("labels are text, whatever stands in them", () => {
  assert.doesNotMatch(drawnBars(chart, 640), /<b>/);
  assert.doesNotMatch(drawnBars({ ...chart, lying: true }, 640), /<b>/);
});

test("a chart of nothing, of one row and of a period before is a drawing", () => {
  for (const some of [
    { ...chart, rows: [] },
    { ...chart, rows: rows.slice(0, 1), bare: true },
    { ...chart, before: rows, marks: [{ key: "first nights", name: "Leads elsewhere" }] },
  ])
    assert.doesNotMatch(drawnBars(some, 300), /NaN|undefined/);
});
