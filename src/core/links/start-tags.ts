import { decodeHTMLAttribute } from "entities";
import { TagScanner, type ScannedAttribute, type ScannedTag } from "../html/tag-scanner.ts";

/** An attribute as it stands in the source; offsets count UTF-16 units from the start of the document. */
export interface SourceAttribute {
  name: string;
  /** Value with entities decoded; empty for an attribute without value. */
  value: string;
  /** Offset of the name, and the offset just behind the attribute (its closing quote, or an `=` with nothing behind it, included). */
  start: number;
  end: number;
  written: ScannedAttribute["written"];
}

/** A start tag in the source. */
export interface StartTag {
  name: string;
  /** Offset of `<`, of the sign behind the name, and the offset just behind `>`. */
  start: number;
  nameEnd: number;
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
  /** The tag's name, where it is one that means something to browsers, and its place in the source. */
  endTag(known: string | undefined, start: number, end: number): void;
  text(start: number, end: number): void;
}

/**
 * Reads the tags of an HTML document that comes in pieces, in source order, broken markup included, as browsers do.
 * Comments, scripts and styles hold no tags. Attribute names come in lower case. Of tags that are not wanted nothing is
 * told. It keeps the source from where it was last told to let go.
 */
export class TagReader {
  private readonly scanner: TagScanner;
  private kept = "";
  private keptFrom = 0;

  /** Without `wanted`, every start tag is told. `decoded` makes text of what stands in the source, where that is bytes. */
  constructor(events: TagEvents, wanted?: ReadonlySet<string>, decoded?: (source: string) => string) {
    const attributeIn = (scanned: ScannedAttribute): SourceAttribute => {
      const { nameStart, nameEnd, valueStart, valueEnd, end, written } = scanned;
      const raw = valueStart === -1 ? "" : this.slice(valueStart, valueEnd);
      const text = decoded ? decoded(raw) : raw;
      return {
        name: this.slice(nameStart, nameEnd).toLowerCase(),
        value: text.includes("&") ? decodeHTMLAttribute(text) : text,
        start: nameStart,
        end,
        written,
      };
    };
    const startTag = (known: string | undefined, tag: ScannedTag, attributes: ScannedAttribute[]): void => {
      const { start, nameEnd, end, selfClosing } = tag;
      const name = known ?? this.slice(start + 1, nameEnd).toLowerCase();
      events.startTag({ name, start, nameEnd, end, selfClosing, attributes: attributes.map(attributeIn) });
    };
    this.scanner = new TagScanner(
      {
        startTag,
        endTag: (known, start, end) => events.endTag(known, start, end),
        text: (start, end) => events.text(start, end),
        slice: (start, end) => this.slice(start, end),
      },
      wanted,
    );
  }

  /** Reads on. */
  write(piece: string): void {
    this.kept += piece;
    this.scanner.write(piece);
  }

  /** Nothing comes any more. */
  end(): void {
    this.scanner.end();
  }

  /** Offset up to which everything was told; a tag that is cut off lies behind it. */
  get told(): number {
    return this.scanner.told;
  }

  /** A part of the source that is still kept. */
  slice(start: number, end: number): string {
    return this.kept.slice(start - this.keptFrom, end - this.keptFrom);
  }

  /** Lets go of what lies before an offset. */
  forget(before: number): void {
    if (before === this.keptFrom) return;
    this.kept = this.kept.slice(before - this.keptFrom);
    this.keptFrom = before;
  }
}

/** Walks through the tags of a whole HTML document; of start tags those that are wanted, or all. */
export function walkTags(html: string, visitor: TagVisitor, wanted?: ReadonlySet<string>): void {
  const reader = new TagReader(
    {
      startTag: (tag) => visitor.startTag(tag),
      endTag: (known, start, end) => visitor.endTag?.(known ?? html.slice(start, end).toLowerCase(), start),
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
