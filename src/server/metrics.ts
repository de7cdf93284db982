import {
  collectDefaultMetrics,
  Counter,
  Gauge,
  Histogram,
  Registry,
  type OpenMetricsContentType,
} from "prom-client";
import { TIME_BOUNDS, type AnswerTimes } from "../incoming/tally.ts";
import type { DeliveryMeasures } from "../delivery/ground/delivery.ts";
import type { StoreMeasures } from "../store/ground/measures.ts";

/** What the metrics are made of, asked anew for each look at them. */
export interface Measured {
  delivery(): Promise<DeliveryMeasures>;
  workspace(): Readonly<Record<string, AnswerTimes>>;
  /** Of the database; undefined while it does not answer. */
  store(): Promise<StoreMeasures | undefined>;
  /** Connections to the database: in use, idle, and asked for in vain so far. */
  pool(): { using: number; idle: number; waiting: number };
  version: string;
}

/** The metrics of a process in the OpenMetrics text format (1.0.0). */
export interface Metrics {
  type: string;
  text(): Promise<string>;
}

/** Puts together what there is to be watched, by the names that docs/operate/watching.md explains. */
export function createMetrics(measured: Measured): Metrics {
  const registry = new Registry<OpenMetricsContentType>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  collectDefaultMetrics({ register: registry });
  const registers = [registry];
  const gauge = <L extends string = never>(name: string, help: string, labelNames: readonly L[] = []) =>
    new Gauge({ name: `maprope_${name}`, help, labelNames: [...labelNames], registers });
  const counter = <L extends string = never>(name: string, help: string, labelNames: readonly L[] = []) =>
    new Counter({ name: `maprope_${name}`, help, labelNames: [...labelNames], registers });

  const answers = timesHistogram(
    "maprope_answers_seconds",
    "Answers to readers and how long they took, by kind.",
  );
  const workspace = timesHistogram(
    "maprope_workspace_answers_seconds",
    "Answers of the workspace and how long they took, by kind.",
  );
  registry.registerMetric(answers.metric);
  registry.registerMetric(workspace.metric);
  const parts = {
    info: gauge("info", "The version that runs; always 1.", ["version"]),
    routes: gauge("routes", "Routes that readers get answers from."),
    stale: gauge("stale_seconds", "Time since it was last known that no change was missed."),
    waiting: gauge("spool_records", "Clicks and misses on the disk that the database has not got yet."),
    waitingAge: gauge("spool_age_seconds", "How long the oldest of them has been waiting."),
    written: counter("spool_written", "Clicks and misses that were written to the disk."),
    lost: counter("spool_lost", "Clicks and misses that the disk did not take."),
    cacheDocuments: gauge("cache_documents", "Rendered documents in memory."),
    cacheBytes: gauge("cache_bytes", "Their size."),
    pool: gauge("database_connections", "Connections to the database.", ["state"]),
    database: gauge("database_up", "Whether the database answers."),
    jobs: gauge("jobs", "Long work that is kept, by its state.", ["state"]),
    tables: gauge("table_bytes", "Size of the largest tables with their indexes.", ["table"]),
  };
  parts.info.set({ version: measured.version }, 1);

  return {
    type: registry.contentType,
    async text() {
      const [delivery, store] = await Promise.all([measured.delivery(), measured.store()]);
      answers.take(delivery.answers);
      workspace.take(measured.workspace());
      parts.routes.set(delivery.routes);
      parts.stale.set(delivery.staleSeconds);
      const { records, oldest, written, lost } = delivery.spool;
      parts.waiting.set(records);
      parts.waitingAge.set(oldest === null ? 0 : Math.max(0, (Date.now() - oldest) / 1000));
      setTo(parts.written, written);
      setTo(parts.lost, lost);
      parts.cacheDocuments.set(delivery.cache.documents);
      parts.cacheBytes.set(delivery.cache.bytes);
      for (const [state, connections] of Object.entries(measured.pool()))
        parts.pool.set({ state }, connections);
      parts.database.set(store ? 1 : 0);
      if (store) {
        for (const [state, jobs] of Object.entries(store.jobs)) parts.jobs.set({ state }, jobs);
        parts.tables.reset();
        for (const { table, bytes } of store.tables) parts.tables.set({ table }, bytes);
      }
      return registry.metrics();
    },
  };
}

function setTo(counter: Counter, value: number): void {
  counter.reset();
  counter.inc(value);
}

// What was counted already, in the library's shape: it cannot be told of what happened before it was asked.
function timesHistogram(name: string, help: string) {
  let times: Readonly<Record<string, AnswerTimes>> = {};
  const metric = new Histogram({
    name,
    help,
    labelNames: ["kind"],
    buckets: [...TIME_BOUNDS],
    registers: [],
  });
  Object.assign(metric, {
    get: async () => ({
      name,
      help,
      type: "histogram",
      aggregator: "sum",
      values: Object.entries(times).flatMap(([kind, of]) => valuesOf(name, kind, of)),
    }),
    getForPromString: undefined,
  });
  return { metric, take: (now: typeof times) => void (times = now) };
}

function valuesOf(name: string, kind: string, { count, sum, spans }: AnswerTimes): object[] {
  let sofar = 0;
  const buckets = TIME_BOUNDS.map((le, span) => {
    sofar += spans[span]!;
    return { metricName: `${name}_bucket`, labels: { kind, le }, value: sofar };
  });
  return [
    ...buckets,
    { metricName: `${name}_bucket`, labels: { kind, le: "+Inf" }, value: count },
    { metricName: `${name}_sum`, labels: { kind }, value: sum },
    { metricName: `${name}_count`, labels: { kind }, value: count },
  ];
}
