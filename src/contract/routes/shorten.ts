import { z } from "zod";
import { hostName } from "../../core/ground/fields.ts";
import { routeSchema } from "../../core/routes/route.ts";

export const shortenSchema = z.strictObject({
  /** One destination a line, with a slug and a title behind it if they are wanted; or a table, with or without headings. */
  text: z.string().min(1, "Paste one address a line.").max(500_000),
  host: hostName.optional(),
  tags: z.array(z.string().trim().min(1).max(60)).max(50).optional(),
  dryRun: z.boolean().default(false),
});

export const shortenAnswerSchema = z.object({
  lines: z.array(
    z.object({
      line: z.int(),
      pasted: z.string(),
      destination: z.string().nullable(),
      /** The address it has, would have or got. */
      address: z.string().nullable(),
      state: z.enum(["new", "existing", "refused"]),
      message: z.string(),
      route: routeSchema.optional(),
    }),
  ),
});
export type ShortenAnswer = z.infer<typeof shortenAnswerSchema>;
