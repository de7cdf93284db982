import { defaultTreeAdapter, html as standard, Parser, type DefaultTreeAdapterMap, type Token } from "parse5";

/** A start tag as a browser reads it. */
export interface ReadTag {
  name: string;
  start: number;
  end: number;
  /** The first of each name. */
  attributes: ReadonlyMap<string, string>;
}

/** What parse5 reads in a document: the start tags that its tokenizer finds, and the elements that stand in its tree. */
export function readByParse5(html: string): { tags: ReadTag[]; elements: ReadonlySet<number> } {
  const tags: ReadTag[] = [];
  class Listening extends Parser<DefaultTreeAdapterMap> {
    override onStartTag(token: Token.TagToken): void {
      const { startOffset: start, endOffset: end } = token.location!;
      tags.push({
        name: token.tagName,
        start,
        end,
        attributes: new Map(token.attrs.map(({ name, value }) => [name, value])),
      });
      super.onStartTag(token);
    }
  }
  const parser = new Listening({
    sourceCodeLocationInfo: true,
    scriptingEnabled: false,
    treeAdapter: defaultTreeAdapter,
  });
  // Where an element of SVG or MathML takes HTML in, CDATA sections are ones all the same (section 13.2.5.42), as Chromium has it.
  const isForeign = (): boolean => {
    const { current } = parser.openElements;
    return current !== undefined && "namespaceURI" in current && current.namespaceURI !== standard.NS.HTML;
  };
  const tokenizer = parser.tokenizer as unknown as {
    inForeignNode: boolean;
    _stateMarkupDeclarationOpen(sign: number): void;
  };
  const openMarkup = tokenizer._stateMarkupDeclarationOpen.bind(tokenizer);
  tokenizer._stateMarkupDeclarationOpen = (sign) => {
    const { inForeignNode } = tokenizer;
    tokenizer.inForeignNode = isForeign();
    openMarkup(sign);
    tokenizer.inForeignNode = inForeignNode;
  };
  parser.tokenizer.write(html, true);
  const elements = new Set<number>();
  const waiting: DefaultTreeAdapterMap["node"][] = [parser.document];
  for (let node = waiting.pop(); node; node = waiting.pop()) {
    if ("content" in node) waiting.push(node.content);
    if (!("childNodes" in node)) continue;
    waiting.push(...node.childNodes);
    const start = "sourceCodeLocation" in node ? node.sourceCodeLocation?.startOffset : undefined;
    if ("attrs" in node && start !== undefined) elements.add(start);
  }
  return { tags, elements };
}

/** The links among them, as the core counts them: `a` and `area` with an address, `xlink:href` of an `a` too. */
export function linksIn(tags: readonly ReadTag[]): ReadTag[] {
  return tags.filter(
    ({ name, attributes }) =>
      ((name === "a" || name === "area") && attributes.has("href")) ||
      (name === "a" && attributes.has("xlink:href")),
  );
}
