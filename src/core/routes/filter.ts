import { z } from "zod";
import { ROUTE_KINDS, HEALTH_VERDICTS } from "./choices.ts";
import { MATCH_KINDS } from "./match/match-kind.ts";

/** What routes can be narrowed by, in lists and for changes of many at once. */
export const routeFilter = z.object({
  q: z.string().max(500).optional(),
  kind: z.enum(ROUTE_KINDS, "kind is short, redirect or gone.").optional(),
  match: z.enum(MATCH_KINDS, "match is exact, prefix, wildcard or pattern.").optional(),
  host: z.string().max(253).optional(),
  tag: z.string().max(60).optional(),
  program: z.string().max(120).optional(),
  state: z.enum(["on", "off", "waiting", "ended"], "state is on, off, waiting or ended.").optional(),
  health: z.enum([...HEALTH_VERDICTS, "bad", "unknown"], "health is bad, unknown or a verdict.").optional(),
  /** Routes that nobody used for so many days, older than that themselves. */
  unused: z.coerce.number("unused is a number of days.").int().min(1).max(3650).optional(),
});

export type RouteFilter = z.infer<typeof routeFilter>;
