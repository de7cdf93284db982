import { z } from "zod";
import { listQuery } from "../ground/lists.ts";
import { routeFilter } from "../../core/routes/filter.ts";

export const routesQuery = listQuery.extend(routeFilter.shape);

export const routeFacetsSchema = z.object({
  tags: z.array(z.object({ tag: z.string(), routes: z.int() })),
  hosts: z.array(z.object({ host: z.string().nullable(), routes: z.int() })),
  health: z.array(z.object({ verdict: z.string(), routes: z.int() })),
});
