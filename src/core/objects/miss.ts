import { z } from "zod";
import { id } from "./fields.ts";
import { destination } from "./fields.ts";
import { ROUTE_STATUSES, routeSchema } from "./route.ts";

export const missSchema = z.object({
  id,
  host: z.string(),
  address: z.string(),
  times: z.int(),
  bots: z.int(),
  firstSeen: z.string(),
  lastSeen: z.string(),
  referrers: z.array(z.string()),
  candidates: z.array(
    z.object({ address: z.string(), title: z.string(), destination: z.string().optional() }),
  ),
});
export type Miss = z.infer<typeof missSchema>;

export const missAnswerSchema = z.strictObject({
  destination,
  status: z.literal([...ROUTE_STATUSES].filter((status) => status !== 410)).optional(),
});

export const missResolvedSchema = z.object({ route: routeSchema });
