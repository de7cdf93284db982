import { bodyDocument, type WrittenBody } from "../../../core/pages/body/body.ts";
import { bodyToHtml } from "../../../core/pages/body/to-html.ts";
import { bodyToMarkdown, markdownToHtml } from "../../../core/pages/formats/markdown.ts";
import { sanitizeHtml } from "../sanitize-html.ts";

/**
 * Writes a body as Markdown that is read as the same body again. Where Markdown's signs would be read otherwise
 * (bold ends inside a word, two lists side by side), the paragraph stands there as HTML, as Markdown allows.
 */
export function exactMarkdown(body: unknown): string {
  const whole = bodyToMarkdown(body);
  const html = bodyToHtml(body);
  if (readBack(whole) === html) return whole;
  const blocks: WrittenBody[] = [];
  bodyDocument(body).forEach((node) => void blocks.push({ type: "doc", content: [node.toJSON()] }));
  const exact = blocks.map((block) => {
    const markdown = bodyToMarkdown(block);
    return readBack(markdown) === bodyToHtml(block) ? markdown : `${asHtmlBlock(bodyToHtml(block))}\n`;
  });
  const mixed = exact.join("\n");
  if (readBack(mixed) === html) return mixed;
  return blocks.map((block) => `${asHtmlBlock(bodyToHtml(block))}\n`).join("\n");
}

function readBack(markdown: string): string {
  return bodyToHtml(sanitizeHtml(markdownToHtml(markdown)).body);
}

// An HTML block of Markdown ends at an empty line (CommonMark 4.6), so it holds none.
function asHtmlBlock(html: string): string {
  return html.replace(/\n/g, "&#10;");
}
