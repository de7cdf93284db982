import { decodeHTMLAttribute } from "entities/decode";
import type { ScannedAttribute } from "../html/tag-body.ts";
import { TagScanner, type ScannedTag, type ScanEvents } from "../html/tag-scanner.ts";

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

/** A start tag in the source. Its attributes are made of the source when they are asked for. */
export class StartTag {
  readonly name: string;
  /** Offset of `<`, of the sign behind the name, and the offset just behind `>`. */
  readonly start: number;
  readonly nameEnd: number;
  readonly end: number;
  readonly selfClosing: boolean;
  /** The tag as it is written. */
  readonly text: string;
  private readonly scanned: readonly ScannedAttribute[];
  private readonly decoded: ((source: string) => string) | undefined;
  private made: readonly SourceAttribute[] | undefined;

  constructor(
    text: string,
    known: string | undefined,
    { start, nameEnd, end, selfClosing }: ScannedTag,
    scanned: readonly ScannedAttribute[],
    decoded?: (source: string) => string,
  ) {
    this.text = text;
    this.name = known ?? text.slice(1, nameEnd - start).toLowerCase();
    this.start = start;
    this.nameEnd = nameEnd;
    this.end = end;
    this.selfClosing = selfClosing;
    this.scanned = scanned;
    this.decoded = decoded;
  }

  /** All attributes in source order, duplicates included; names in lower case. */
  get attributes(): readonly SourceAttribute[] {
    this.made ??= this.scanned.map((one) => ({
      name: this.text.slice(one.nameStart - this.start, one.nameEnd - this.start).toLowerCase(),
      value: this.valueOf(one),
      start: one.nameStart,
      end: one.end,
      written: one.written,
    }));
    return this.made;
  }

  /** The value of the first attribute of that name, which is the one browsers obey (HTML section 13.2.5.33). */
  value(name: string): string | undefined {
    const one = this.first(name);
    return one && this.valueOf(one);
  }

  /** The same as it stands in the source. */
  source(name: string): string | undefined {
    const one = this.first(name);
    return (
      one &&
      (one.valueStart === -1 ? "" : this.text.slice(one.valueStart - this.start, one.valueEnd - this.start))
    );
  }

  private first(name: string): ScannedAttribute | undefined {
    const { start, text } = this;
    for (const one of this.scanned) {
      const { nameStart, nameEnd } = one;
      if (nameEnd - nameStart !== name.length) continue;
      const written = text.slice(nameStart - start, nameEnd - start);
      if (written === name || written.toLowerCase() === name) return one;
    }
    return undefined;
  }

  private valueOf({ valueStart, valueEnd }: ScannedAttribute): string {
    if (valueStart === -1) return "";
    const raw = this.text.slice(valueStart - this.start, valueEnd - this.start);
    const text = this.decoded ? this.decoded(raw) : raw;
    return text.includes("&") ? decodeHTMLAttribute(text) : text;
  }
}

/** Receives what is found while a document is walked through. */
export interface TagVisitor {
  startTag(tag: StartTag): void;
  endTag?(name: string, start: number): void;
  text?(text: string): void;
}

/** Walks through the tags of a whole HTML document; of start tags those that are wanted, or all. */
export function walkTags(html: string, visitor: TagVisitor, wanted?: ReadonlySet<string>): void {
  const events: ScanEvents = {
    startTag: (known, tag, attributes) =>
      visitor.startTag(new StartTag(html.slice(tag.start, tag.end), known, tag, attributes)),
    endTag: (known, start, end) => visitor.endTag?.(known ?? html.slice(start, end).toLowerCase(), start),
    text: (start, end) => visitor.text?.(html.slice(start, end)),
  };
  const scanner = new TagScanner(events, wanted);
  scanner.write(html);
  scanner.end();
}
