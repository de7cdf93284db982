import { getSchema } from "@tiptap/core";
import { Node as DocumentNode } from "@tiptap/pm/model";
import { z } from "zod";
import { bodyExtensions } from "./extensions.ts";

/** A body as it is stored and edited: rich-text JSON. */
export interface Body {
  type: "doc";
  content?: unknown[];
}

/** The document schema of bodies. */
export const bodySchema = getSchema(bodyExtensions);

/** The body of a page that nobody has written yet. */
export const emptyBody: Body = { type: "doc", content: [{ type: "paragraph" }] };

/** Reads stored or submitted JSON as a document; throws RangeError when it is none that a body can hold. */
export function bodyDocument(body: unknown): DocumentNode {
  const node = DocumentNode.fromJSON(bodySchema, body);
  if (node.type !== bodySchema.topNodeType) throw new RangeError(`a ${node.type.name} is no whole document`);
  node.check();
  return node;
}

/** The one check of a body that comes in from outside. */
export const bodyInput = z.unknown().transform((value, context): Body => {
  try {
    return bodyDocument(value).toJSON() as Body;
  } catch (error) {
    const why = error instanceof Error ? error.message : "unreadable";
    context.addIssue({
      code: "custom",
      message: `The body is not a document this editor can hold: ${why.slice(0, 200)}`,
    });
    return z.NEVER;
  }
});
