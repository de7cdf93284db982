import { z } from "zod";
import { MATCH_KINDS } from "../routes/match/match-kind.ts";
import { destination, id } from "../ground/fields.ts";
import { routeSchema } from "../routes/route.ts";
import { ROUTE_STATUSES } from "../routes/choices.ts";

/** Who asks for what nothing answers: people, robots, or scanners that look for holes. */
export const MISS_GROUPS = ["people", "robots", "scanners"] as const;
export type MissGroup = (typeof MISS_GROUPS)[number];

const candidateSchema = z.object({
  address: z.string(),
  title: z.string(),
  destination: z.string().optional(),
  reason: z.string(),
});

export const missSchema = z.object({
  id,
  host: z.string(),
  address: z.string(),
  times: z.int(),
  bots: z.int(),
  firstSeen: z.string(),
  lastSeen: z.string(),
  referrers: z.array(z.string()),
  candidates: z.array(candidateSchema),
});
export type Miss = z.infer<typeof missSchema>;

const status = z.literal([...ROUTE_STATUSES].filter((one) => one !== 410)).optional();

export const missAnswerSchema = z.strictObject({ destination, status });

export const missResolvedSchema = z.object({ route: routeSchema });

/** Several misses answered in one step, each with its own destination. */
export const missesAnswerSchema = z.strictObject({
  answers: z.array(z.strictObject({ id, destination })).min(1, "Which misses?").max(500),
  status,
});

export const missesAnsweredSchema = z.object({
  routes: z.array(routeSchema),
  refused: z.array(z.object({ id: z.string(), address: z.string(), message: z.string() })),
});
export type MissesAnswered = z.infer<typeof missesAnsweredSchema>;

export const missesIgnoredSchema = z.strictObject({
  ids: z.array(id).min(1, "Which misses?").max(5000),
  /** False takes them back into the list. */
  ignore: z.boolean().default(true),
});

/** What is to be said of all misses together. */
export const missSummarySchema = z.object({
  groups: z.object({ people: z.int(), robots: z.int(), scanners: z.int() }),
  /** Misses that were let go of because there were too many, and when last; null when there never were. */
  letGo: z.object({ misses: z.int(), lastAt: z.string() }).nullable(),
  /** Routes that would answer many of them. */
  proposals: z.array(
    z.object({
      host: z.string(),
      address: z.string(),
      match: z.enum(MATCH_KINDS),
      destination: z.string(),
      answers: z.array(z.string()),
      times: z.int(),
      reason: z.string(),
    }),
  ),
  /** What sending every miss somewhere would have hidden. */
  hidden: z.object({
    addresses: z.int(),
    times: z.int(),
    /** Of those, addresses that our own pages link to: faults of ours. */
    ownFaults: z.array(z.object({ address: z.string(), from: z.string(), times: z.int() })),
  }),
});
export type MissSummary = z.infer<typeof missSummarySchema>;
