import { z } from "zod";

export const routeHistorySchema = z.object({
  items: z.array(
    z.object({
      at: z.string(),
      by: z.string(),
      action: z.string(),
      /** The fields that were set, and what to. */
      fields: z.record(z.string(), z.unknown()),
    }),
  ),
});
export type RouteHistory = z.infer<typeof routeHistorySchema>;
