import { z } from "zod";
import { ADVICE_CODES } from "../../core/routes/route.ts";

export const lintAnswerSchema = z.object({
  findings: z.array(
    z.object({
      code: z.enum(ADVICE_CODES),
      severity: z.enum(["error", "warning", "hint"]),
      routes: z.array(z.string()),
      message: z.string(),
      fix: z
        .object({
          route: z.string(),
          label: z.string(),
          destination: z.string().optional(),
          delete: z.literal(true).optional(),
        })
        .optional(),
    }),
  ),
  /** How many routes were looked at. */
  routes: z.int(),
});
