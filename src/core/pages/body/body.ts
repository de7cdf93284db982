import { getSchema } from "@tiptap/core";
import { Node as DocumentNode, type Schema } from "@tiptap/pm/model";
import { bodyExtensions } from "./extensions.ts";

/** Rich-text JSON that a body can hold, its addresses not looked at yet: what an editor or a caller sends. */
export interface WrittenBody {
  type: "doc";
  content?: unknown[];
}

/** A body as it is stored: only the gate (`admitBody`) makes one, so that no unchecked address is ever written. */
export type Body = WrittenBody & { readonly __admitted: unique symbol };

let made: Schema | undefined;

/** The document schema of bodies; made when it is first asked for, which takes a browser a while. */
export function bodySchema(): Schema {
  made ??= getSchema(bodyExtensions);
  return made;
}

/** The body of a page that nobody has written yet. */
export const emptyBody = { type: "doc", content: [{ type: "paragraph" }] } as WrittenBody as Body;

/** Reads stored or submitted JSON as a document; throws RangeError when it is none that a body can hold. */
export function bodyDocument(body: unknown): DocumentNode {
  const node = DocumentNode.fromJSON(bodySchema(), body);
  if (node.type !== bodySchema().topNodeType)
    throw new RangeError(`a ${node.type.name} is no whole document`);
  node.check();
  return node;
}
