import type { Series } from "../../ui/charts/Bars.tsx";

/** Who is behind requests to routes: persons in the foreground, the others to be added by their legend. */
export const SERIES: readonly Series[] = [
  { name: "People", field: "clicks", color: "--color-accent" },
  { name: "Robots", field: "bots", color: "--color-hemp" },
  { name: "Prefetches", field: "prefetches", color: "--color-quiet" },
  { name: "HEAD requests", field: "heads", color: "--color-line" },
];
