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

/** Receives what a reader finds; offsets count from the start of the document. */
export interface TagEvents {
  startTag(tag: StartTag): void;
  /** The name's place in the source. */
  endTag(start: number, end: number): void;
  text(start: number, end: number): void;
}

/**
 * Reads the tags of an HTML document that comes in pieces, in source order, broken markup included, with the tokenizer
 * of htmlparser2. Comments, scripts and styles hold no tags. Attribute names come in lower case. Of tags that are not
 * wanted nothing is told; nor are their attributes read.
 */
export class TagReader {
  private readonly events: TagEvents;
  private readonly wanted: ReadonlySet<string> | undefined;
  private readonly longest: number;
  private readonly firstLetters: readonly number[];
  private readonly tokenizer: Tokenizer;
  private kept = "";
  private keptFrom = 0;
  private read = 0;
  private tag: StartTag | undefined;
  private attribute: { name: string; start: number; end: number } | undefined;
  private valueStart = -1;
  private valueEnd = -1;

  /** Without `wanted`, every start tag is told. */
  constructor(events: TagEvents, wanted?: ReadonlySet<string>) {
    this.events = events;
    this.wanted = wanted;
    this.longest = wanted ? Math.max(...[...wanted].map(({ length }) => length)) : Infinity;
    this.firstLetters = wanted ? [...new Set([...wanted].map((name) => name.charCodeAt(0)))] : [];
    const settle = (_: number, end: number): void => void (this.read = end);
    this.tokenizer = new Tokenizer(
      { xmlMode: false, decodeEntities: false },
      {
        onopentagname: (start, end) => this.openTag(start, end),
        onattribname: (start, end) => {
          if (!this.tag) return;
          this.attribute = { name: this.slice(start, end).toLowerCase(), start, end };
          this.valueStart = -1;
        },
        onattribdata: (start, end) => {
          if (this.valueStart === -1) this.valueStart = start;
          this.valueEnd = end;
        },
        onattribentity() {},
        onattribend: (quote, end) => this.endAttribute(quote, end),
        onopentagend: (end) => this.endTag(end, false),
        onselfclosingtag: (end) => this.endTag(end, true),
        onclosetag: (start, end) => {
          this.read = end;
          events.endTag(start, end);
        },
        ontext: (start, end) => {
          this.read = end;
          events.text(start, end);
        },
        ontextentity() {},
        oncdata: settle,
        oncomment: settle,
        ondeclaration: settle,
        onprocessinginstruction: settle,
        onend() {},
      },
    );
  }

  /** Reads on. */
  write(piece: string): void {
    this.kept += piece;
    this.tokenizer.write(piece);
  }

  /** Nothing comes any more. */
  end(): void {
    this.tokenizer.end();
    this.read = this.keptFrom + this.kept.length;
  }

  /** Offset up to which everything was told; a tag that is cut off lies behind it. */
  get told(): number {
    return this.read;
  }

  /** A part of the source that is still kept. */
  slice(start: number, end: number): string {
    return this.kept.slice(start - this.keptFrom, end - this.keptFrom);
  }

  /** Lets go of what lies before an offset. */
  forget(before: number): void {
    this.kept = this.kept.slice(before - this.keptFrom);
    this.keptFrom = before;
  }

  // Most tags are told by their first letter: reading their names costs more than all else that is done for them.
  private mayBegin(letter: number): boolean {
    return !this.wanted || this.firstLetters.includes(letter | 32);
  }

  private openTag(start: number, end: number): void {
    this.tag = undefined;
    if (end - start > this.longest || !this.mayBegin(this.kept.charCodeAt(start - this.keptFrom))) return;
    const name = this.slice(start, end).toLowerCase();
    if (!this.wanted || this.wanted.has(name))
      this.tag = { name, start: start - 1, end, selfClosing: false, attributes: [] };
  }

  private endAttribute(quote: QuoteType, end: number): void {
    if (!this.tag || !this.attribute) return;
    const { name, start, end: nameEnd } = this.attribute;
    const raw = this.valueStart === -1 ? "" : this.slice(this.valueStart, this.valueEnd);
    this.tag.attributes.push({
      name,
      value: raw.includes("&") ? decodeHTMLAttribute(raw) : raw,
      start,
      end: quote === QuoteType.NoValue ? nameEnd : end,
    });
    this.attribute = undefined;
  }

  private endTag(endIndex: number, selfClosing: boolean): void {
    this.read = endIndex + 1;
    const { tag } = this;
    if (!tag) return;
    this.tag = undefined;
    tag.end = endIndex + 1;
    tag.selfClosing = selfClosing;
    this.events.startTag(tag);
  }
}

/** Walks through the tags of a whole HTML document; of start tags those that are wanted, or all. */
export function walkTags(html: string, visitor: TagVisitor, wanted?: ReadonlySet<string>): void {
  const reader = new TagReader(
    {
      startTag: (tag) => visitor.startTag(tag),
      endTag: (start, end) => visitor.endTag?.(html.slice(start, end).toLowerCase(), start),
      text: (start, end) => visitor.text?.(html.slice(start, end)),
    },
    wanted,
  );
  reader.write(html);
  reader.end();
}

/** The first attribute of that name, which is the one browsers obey (HTML section 13.2.5.33). */
export function attributeOf(tag: StartTag, name: string): string | undefined {
  return tag.attributes.find((attribute) => attribute.name === name)?.value;
}
