import { z } from "zod";
import { bodyDocument, type WrittenBody } from "./body.ts";

/** The one check of a body that comes in from outside: whether it is a document. Its addresses are the gate's. */
export const bodyInput = z.unknown().transform((value, context): WrittenBody => {
  try {
    return bodyDocument(value).toJSON() as WrittenBody;
  } catch (error) {
    const why = error instanceof Error ? error.message : "unreadable";
    context.addIssue({
      code: "custom",
      message: `The body is not a document this editor can hold: ${why.slice(0, 200)}`,
    });
    return z.NEVER;
  }
});
