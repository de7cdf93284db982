import type { Series } from "../../ui/charts/chart.ts";
import * as say from "./words.ts";

/** Who is behind requests to routes: persons in the foreground, the others to be added by their legend. */
export const SERIES: readonly Series[] = [
  { name: say.people, field: "clicks", color: "--color-accent" },
  { name: say.robots, field: "bots", color: "--color-hemp" },
  { name: say.prefetches, field: "prefetches", color: "--color-quiet" },
  { name: say.headRequests, field: "heads", color: "--color-line" },
];
