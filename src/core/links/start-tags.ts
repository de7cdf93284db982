import { QuoteType, Tokenizer } from "htmlparser2";
import { decodeHTMLAttribute } from "entities";

/** An attribute as it stands in the source; offsets count UTF-16 units from the start of the document. */
export interface SourceAttribute {
  name: string;
  /** Value with entities decoded; empty for an attribute without value. */
  value: string;
  /** Offset of the name, and the offset just behind the attribute (its closing quote included). */
  start: number;
  end: number;
}

/** A start tag in the source. */
export interface StartTag {
  name: string;
  /** Offset of `<` and the offset just behind `>`. */
  start: number;
  end: number;
  selfClosing: boolean;
  attributes: SourceAttribute[];
}

/** Receives what is found while a document is walked through. */
export interface TagVisitor {
  startTag(tag: StartTag): void;
  endTag?(name: string, start: number): void;
  text?(text: string): void;
}

/**
 * Walks through the tags of an HTML document in source order, broken markup included, with the tokenizer of
 * htmlparser2. Comments, scripts and styles hold no tags. Attribute names come in lower case.
 */
export function walkTags(html: string, visitor: TagVisitor): void {
  let tag: StartTag | undefined;
  let attributeName: { name: string; start: number; end: number } | undefined;
  let valueStart = -1;
  let valueEnd = -1;
  const openTagEnd = (endIndex: number, selfClosing: boolean): void => {
    if (!tag) return;
    tag.end = endIndex + 1;
    tag.selfClosing = selfClosing;
    visitor.startTag(tag);
    tag = undefined;
  };
  const tokenizer = new Tokenizer(
    { xmlMode: false, decodeEntities: false },
    {
      onopentagname(start, end) {
        tag = {
          name: html.slice(start, end).toLowerCase(),
          start: start - 1,
          end,
          selfClosing: false,
          attributes: [],
        };
      },
      onattribname(start, end) {
        attributeName = { name: html.slice(start, end).toLowerCase(), start, end };
        valueStart = -1;
      },
      onattribdata(start, end) {
        if (valueStart === -1) valueStart = start;
        valueEnd = end;
      },
      onattribentity() {},
      onattribend(quote, end) {
        if (!tag || !attributeName) return;
        const raw = valueStart === -1 ? "" : html.slice(valueStart, valueEnd);
        const behind = quote === QuoteType.NoValue ? attributeName.end : end;
        tag.attributes.push({
          name: attributeName.name,
          value: decodeHTMLAttribute(raw),
          start: attributeName.start,
          end: behind,
        });
        attributeName = undefined;
      },
      onopentagend: (end) => openTagEnd(end, false),
      onselfclosingtag: (end) => openTagEnd(end, true),
      onclosetag(start, end) {
        visitor.endTag?.(html.slice(start, end).toLowerCase(), start);
      },
      ontext(start, end) {
        visitor.text?.(html.slice(start, end));
      },
      ontextentity() {},
      oncdata() {},
      oncomment() {},
      ondeclaration() {},
      onprocessinginstruction() {},
      onend() {},
    },
  );
  tokenizer.write(html);
  tokenizer.end();
}

/** The first attribute of that name, which is the one browsers obey (HTML section 13.2.5.33). */
export function attributeOf(tag: StartTag, name: string): string | undefined {
  return tag.attributes.find((attribute) => attribute.name === name)?.value;
}
