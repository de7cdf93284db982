import type { Node } from "@tiptap/pm/model";

/**
 * A document as JSON text. Blocks that have not changed since they were last written are not written again: keeping a
 * long text safe costs as much as the paragraph that is being typed.
 */
export function writtenBody(document: Node): string {
  const blocks: string[] = [];
  document.forEach((block) => {
    let text = written.get(block);
    if (text === undefined) written.set(block, (text = JSON.stringify(block.toJSON())));
    blocks.push(text);
  });
  return `{"type":"doc","content":[${blocks.join(",")}]}`;
}

const written = new WeakMap<Node, string>();
