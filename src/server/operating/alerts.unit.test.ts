import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { parser } from "@prometheus-io/lezer-promql";
import { parse } from "yaml";
import { createMetrics } from "../metrics.ts";

interface Rules {
  groups: {
    name: string;
    rules: { alert: string; expr: string; for?: string; annotations: { summary: string } }[];
  }[];
}

const NO_TIMES = { count: 0, sum: 0, spans: Array.from({ length: 13 }, () => 0) };
const DELIVERED = ["route", "page", "front", "file", "asset", "miss", "moved", "refused", "health"] as const;

test("each alert of docs/operate is an expression, over metrics that there are, and says what to do", async () => {
  const file = new URL("../../../docs/operate/alerts.yml", import.meta.url);
  const { groups } = parse(readFileSync(file, "utf8")) as Rules;
  const answers = Object.fromEntries(DELIVERED.map((kind) => [kind, NO_TIMES])) as Record<
    (typeof DELIVERED)[number],
    typeof NO_TIMES
  >;
  const metrics = createMetrics({
    delivery: async () => ({
      answers,
      spool: { records: 0, oldest: null, written: 0, lost: 0 },
      routes: 0,
      staleSeconds: 0,
      cache: { documents: 0, bytes: 0 },
    }),
    workspace: () => ({}),
    store: async () => ({ jobs: { waiting: 0, running: 0, done: 0, failed: 0, stopped: 0 }, tables: [] }),
    pool: () => ({ using: 0, idle: 0, waiting: 0 }),
    version: "0",
  });
  const text = await metrics.text();
  const names = new Set(text.split("\n").flatMap((line) => /^([a-zA-Z_:][\w:]*)[ {]/.exec(line)?.[1] ?? []));
  const rules = groups.flatMap((group) => group.rules);
  assert.ok(rules.length >= 8);
  for (const { alert, expr, for: lasting, annotations } of rules) {
    const used: string[] = [];
    parser.parse(expr).iterate({
      enter({ type, from, to }) {
        assert.ok(!type.isError, `${alert}: ${expr} is no expression at ${from}`);
        if (type.name === "Identifier" && names.has(expr.slice(from, to))) used.push(expr.slice(from, to));
        if (type.name === "VectorSelector") {
          const name = /^[\w:]+/.exec(expr.slice(from, to))?.[0] ?? "";
          assert.ok(names.has(name), `${alert} asks for ${name}, which there is not`);
        }
      },
    });
    assert.ok(used.length > 0, alert);
    assert.match(lasting ?? "1m", /^\d+m$/);
    assert.match(annotations.summary, /^[A-Z].*[.?]$/);
  }
});
