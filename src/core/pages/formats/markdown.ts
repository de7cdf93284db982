import type { Mark, Node } from "@tiptap/pm/model";
import { Lexer, Marked, type Token } from "marked";
import { MarkdownSerializer } from "prosemirror-markdown";
import { bodyDocument, bodySchema, type WrittenBody } from "../body/body.ts";
import { bodyToHtml } from "../body/to-html.ts";

/**
 * Writes a body as Markdown (CommonMark). What Markdown has no sign for stands there as HTML, which Markdown
 * allows: links with attributes of their own, pictures with caption or size, headings with an id.
 */
export function bodyToMarkdown(body: unknown): string {
  return `${serializer.serialize(bodyDocument(body)).trim()}\n`;
}

/** Reads Markdown as HTML; it is the caller's to sanitise that. */
export function markdownToHtml(text: string): string {
  return reading.parse(text, { async: false });
}

/** Marks within one paragraph, and blocks within one another, up to which Markdown's signs are read as such. */
const MAX_MARKS = 1_000;
const MAX_BLOCKS_DEEP = 60;

/**
 * Reads in a time that grows with the text. A paragraph's marks are paired with one another, which takes the square of
 * their number, and blocks in blocks are read once for each level: what has more of either stands there as its words.
 */
class BoundedLexer extends Lexer {
  private depth = 0;

  override blockTokens(src: string, tokens: Token[] = [], lastParagraphClipped = false): never {
    this.depth += 1;
    try {
      if (this.depth <= MAX_BLOCKS_DEEP) return super.blockTokens(src, tokens, lastParagraphClipped) as never;
      tokens.push({ type: "text", raw: src, text: src, escaped: false } as Token);
      return tokens as never;
    } finally {
      this.depth -= 1;
    }
  }

  override inlineTokens(src: string, tokens: Token[] = []): Token[] {
    if (marksIn(src) <= MAX_MARKS) return super.inlineTokens(src, tokens);
    tokens.push({ type: "text", raw: src, text: src, escaped: false } as Token);
    return tokens;
  }
}

const reading = new Marked({
  gfm: true,
  hooks: { provideLexer: () => (text, options) => new BoundedLexer(options as never).lex(text) },
});

function marksIn(text: string): number {
  let marks = 0;
  for (let at = 0; at < text.length && marks <= MAX_MARKS; at += 1)
    if ("*_~`[]<&\\".includes(text[at]!)) marks += 1;
  return marks;
}

type State = Parameters<ConstructorParameters<typeof MarkdownSerializer>[0][string]>[0];

const serializer = new MarkdownSerializer(
  {
    paragraph(state, node) {
      if (node.childCount === 0) state.write("<p></p>");
      else state.renderInline(node);
      state.closeBlock(node);
    },
    heading(state, node) {
      if (node.attrs.id !== null || node.childCount === 0) return writeHtml(state, node);
      state.write(`${"#".repeat(node.attrs.level as number)} `);
      state.renderInline(node, false);
      state.closeBlock(node);
    },
    blockquote: (state, node) => state.wrapBlock("> ", null, node, () => state.renderContent(node)),
    bulletList: (state, node) => state.renderList(node, "  ", () => "- "),
    orderedList(state, node) {
      const start = (node.attrs.start as number) || 1;
      const width = String(start + node.childCount - 1).length;
      state.renderList(node, " ".repeat(width + 2), (index) => {
        const number = String(start + index);
        return `${number}. ${" ".repeat(width - number.length)}`;
      });
    },
    listItem: (state, node) => state.renderContent(node),
    codeBlock(state, node) {
      const longest = Math.max(2, ...[...node.textContent.matchAll(/`{3,}/g)].map(([run]) => run.length));
      const fence = "`".repeat(longest + 1);
      state.write(`${fence}${(node.attrs.language as string | null) ?? ""}\n`);
      state.text(node.textContent, false);
      state.write(`\n${fence}`);
      state.closeBlock(node);
    },
    horizontalRule(state, node) {
      state.write("---");
      state.closeBlock(node);
    },
    hardBreak: (state) => state.write("\\\n"),
    image(state, node) {
      const { src, alt, title } = node.attrs as Record<string, string | null>;
      const simple = node.childCount === 0 && onlyThese(node.attrs, ["src", "alt", "title"]);
      if (!simple || !/^[^\s()<>]+$/.test(src ?? "")) return writeHtml(state, node);
      state.write(`![${state.esc(alt ?? "")}](${src}${quotedTitle(title)})`);
      state.closeBlock(node);
    },
    text: (state, node) => state.text(node.text!, !isInCode(node)),
  },
  {
    bold: { open: "**", close: "**", mixable: true, expelEnclosingWhitespace: true },
    italic: { open: "*", close: "*", mixable: true, expelEnclosingWhitespace: true },
    strike: { open: "~~", close: "~~", mixable: true, expelEnclosingWhitespace: true },
    code: {
      open: (_state, _mark, parent, index) => ticks(parent, index, "open"),
      close: (_state, _mark, parent, index) => ticks(parent, index - 1, "close"),
      escape: false,
    },
    link: { open: (_state, mark) => linkOpens(mark), close: (_state, mark) => linkCloses(mark) },
  },
  { hardBreakNodeName: "hardBreak" },
);

function writeHtml(state: State, node: Node): void {
  state.write(htmlOf(node.toJSON()));
  state.closeBlock(node);
}

function htmlOf(block: unknown): string {
  return bodyToHtml({ type: "doc", content: [block] } satisfies WrittenBody);
}

function onlyThese(attributes: Readonly<Record<string, unknown>>, names: readonly string[]): boolean {
  return Object.entries(attributes).every(([name, value]) => value === null || names.includes(name));
}

function isPlainLink({ attrs }: Mark): boolean {
  return onlyThese(attrs, ["href", "title"]) && /^[^\s()<>\\]+$/.test(attrs.href as string);
}

function linkOpens(mark: Mark): string {
  if (isPlainLink(mark)) return "[";
  const html = htmlOf({ type: "paragraph", content: [bodySchema().text("x", [mark]).toJSON()] });
  return html.slice("<p>".length, html.indexOf(">x</a>") + 1);
}

function linkCloses(mark: Mark): string {
  if (!isPlainLink(mark)) return "</a>";
  return `](${mark.attrs.href as string}${quotedTitle(mark.attrs.title as string | null)})`;
}

function quotedTitle(title: string | null | undefined): string {
  return title ? ` "${title.replace(/["\\]/g, "\\$&")}"` : "";
}

function isInCode(node: Node): boolean {
  return node.marks.some(({ type }) => type.name === "code");
}

// A run of ticks longer than any inside, with a space where the text itself begins or ends with one.
function ticks(parent: Node, index: number, side: "open" | "close"): string {
  const text = parent.maybeChild(index)?.text ?? "";
  const longest = Math.max(0, ...[...text.matchAll(/`+/g)].map(([run]) => run.length));
  const run = "`".repeat(longest + 1);
  const isPadded =
    text.startsWith("`") ||
    text.endsWith("`") ||
    (text.startsWith(" ") && text.endsWith(" ") && text.trim() !== "");
  if (!isPadded) return run;
  return side === "open" ? `${run} ` : ` ${run}`;
}
