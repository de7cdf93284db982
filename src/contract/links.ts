import { resolvedLinkSchema } from "../core/links/resolved-link.ts";
import { z } from "zod";
import { pasteQuestionSchema, pasteAnswerSchema } from "../core/links/paste.ts";
import { call } from "./ground/call.ts";

export const resolvedLinksSchema = z.object({ items: z.array(resolvedLinkSchema) });

/** The calls about links. */
export const links = {
  resolve: call("POST", "/sites/:site/looks", {
    summary: "Where each of these addresses leads, seen from the site",
    role: "reader",
    body: z.strictObject({ addresses: z.array(z.string().max(4096)).max(5000) }),
    answer: resolvedLinksSchema,
  }),
  paste: call("POST", "/sites/:site/paste", {
    summary: "What is known of something that was pasted",
    role: "reader",
    body: pasteQuestionSchema,
    answer: pasteAnswerSchema,
  }),
};
