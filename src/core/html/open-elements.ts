import {
  BREAKOUT,
  CLOSES_LIKE,
  FOREIGN_ROOT,
  FORMATTING,
  HEADING,
  hashOfName,
  MATH_POINT,
  PLAINTEXT,
  RAW,
  SCOPE,
  SCRIPT,
  SINGLE,
  SPECIAL,
  SVG_POINT,
  TABLE_PART,
  VOID,
  ENDS_SELECT,
} from "./element-names.ts";

// What an open element is, beside the meaning of its name.
const SVG = 1 << 20;
const MATH = 1 << 21;
const FOREIGN = SVG | MATH;
/** An integration point for HTML (section 13.2.6): what stands in it is read as HTML. */
const HTML_POINT = 1 << 22;
/** An integration point for MathML's text. */
const TEXT_POINT = 1 << 23;
const ANNOTATION = 1 << 24;

const SVG_NAME = hashOfName("svg");
const ANNOTATION_NAME = hashOfName("annotation-xml");
const MGLYPH = hashOfName("mglyph");
const MALIGNMARK = hashOfName("malignmark");
const FONT = hashOfName("font");
const P = hashOfName("p");
const BR = hashOfName("br");
const FORM = hashOfName("form");
const TABLE = hashOfName("table");
const TEMPLATE = hashOfName("template");
const SELECT = hashOfName("select");
const OPTION = hashOfName("option");
const OPTGROUP = hashOfName("optgroup");

/** Open elements that are kept; of what is nested deeper browsers make siblings. */
const DEEPEST = 512;
const SHALLOW = 64;

/** What the text behind a start tag is, by the element that it begins. */
export type Content = "data" | "raw" | "script" | "plaintext";

/**
 * The stack of open elements, as far as it decides how tags are read: whether what comes is foreign content (SVG,
 * MathML), and whether the content of an element is text (HTML standard, sections 13.2.6.4 and 13.2.6.5). What the
 * standard moves about in the tree, misnested formatting and text in tables, is followed by name only.
 */
export class OpenElements {
  private names = new Int32Array(SHALLOW);
  private kinds = new Int32Array(SHALLOW);
  private depth = 0;
  /** Where the `select` stands whose content is being read; -1 outside. */
  private selectAt = -1;
  private templates = 0;
  /** The form element pointer (section 13.2.4.4): there is one form at a time. */
  private hasForm = false;

  /** True where a CDATA section is one: inside foreign content (section 13.2.5.42). */
  get isForeign(): boolean {
    return this.depth > 0 && (this.kinds[this.depth - 1]! & FOREIGN) !== 0;
  }

  /** True where what follows may hang on the attributes of a start tag of that name. */
  asksAttributes(name: number): boolean {
    return this.isForeign && (name === FONT || name === ANNOTATION_NAME);
  }

  /**
   * A start tag, by the hash and the meaning of its name; answers what its content is. `attribute` tells whether one of
   * some attributes stands in it, with one of some values where those are given.
   */
  open(
    name: number,
    flags: number,
    selfClosing: boolean,
    attribute: (names: readonly string[], values?: readonly string[]) => boolean,
  ): Content {
    if (this.isForeign && !this.isHtmlHere(name)) {
      if ((flags & BREAKOUT) === 0 && !(name === FONT && attribute(["color", "face", "size"]))) {
        if (!selfClosing) this.push(name, this.foreignKind(name, flags, attribute));
        return "data";
      }
      this.breakOut();
    }
    return this.openHtml(name, flags, selfClosing);
  }

  /** An end tag. */
  close(name: number, flags: number): void {
    if (this.isForeign) {
      if (name === P || name === BR) this.breakOut();
      for (let at = this.depth - 1; at >= 0 && (this.kinds[at]! & FOREIGN) !== 0; at -= 1)
        if (this.names[at] === name) return this.cut(at);
    }
    this.closeHtml(name, flags);
  }

  // A start tag inside foreign content that is read as HTML all the same (section 13.2.6, the tree construction dispatcher).
  private isHtmlHere(name: number): boolean {
    const kind = this.kinds[this.depth - 1]!;
    if ((kind & HTML_POINT) !== 0) return true;
    if ((kind & TEXT_POINT) !== 0) return name !== MGLYPH && name !== MALIGNMARK;
    return (kind & ANNOTATION) !== 0 && name === SVG_NAME;
  }

  private foreignKind(
    name: number,
    flags: number,
    attribute: (names: readonly string[], values?: readonly string[]) => boolean,
  ): number {
    const space = this.kinds[this.depth - 1]! & FOREIGN;
    if (space === SVG) return SVG | ((flags & SVG_POINT) !== 0 ? HTML_POINT | SPECIAL | SCOPE : 0);
    if ((flags & MATH_POINT) !== 0) return MATH | TEXT_POINT | SPECIAL | SCOPE;
    if (name !== ANNOTATION_NAME) return MATH;
    const isHtml = attribute(["encoding"], ["text/html", "application/xhtml+xml"]);
    return MATH | ANNOTATION | SPECIAL | SCOPE | (isHtml ? HTML_POINT : 0);
  }

  private breakOut(): void {
    while (this.depth > 0) {
      const kind = this.kinds[this.depth - 1]!;
      if ((kind & FOREIGN) === 0 || (kind & (HTML_POINT | TEXT_POINT)) !== 0) return;
      this.cut(this.depth - 1);
    }
  }

  private openHtml(name: number, flags: number, selfClosing: boolean): Content {
    if (this.selectAt !== -1 && !this.opensInSelect(name, flags)) return "data";
    if ((flags & (RAW | SCRIPT | PLAINTEXT)) !== 0)
      return (flags & RAW) !== 0 ? "raw" : (flags & SCRIPT) !== 0 ? "script" : "plaintext";
    if ((flags & (VOID | SINGLE)) !== 0) return "data";
    if ((flags & TABLE_PART) !== 0 && name !== TABLE && !this.opensInTable()) return "data";
    if (name === FORM && this.templates === 0) {
      if (this.hasForm) return "data";
      this.hasForm = true;
    }
    if ((flags & FOREIGN_ROOT) !== 0) {
      if (!selfClosing) this.push(name, name === SVG_NAME ? SVG : MATH);
      return "data";
    }
    if ((flags & CLOSES_LIKE) !== 0 && this.depth > 0 && this.names[this.depth - 1] === name) return "data";
    this.push(name, flags & (SPECIAL | SCOPE | HEADING | TABLE_PART));
    if (name === SELECT) this.selectAt = this.depth - 1;
    else if (name === TEMPLATE) {
      this.selectAt = -1;
      this.templates += 1;
    }
    return "data";
  }

  // Parts of a table mean nothing outside of one; inside, what stands open in it is closed before them.
  private opensInTable(): boolean {
    let isInside = false;
    for (let at = this.depth - 1; at >= 0; at -= 1) {
      const isTemplate = this.isHtml(at, TEMPLATE);
      if (this.isHtml(at, TABLE) || (isTemplate && !isInside)) {
        this.cut(at + 1);
        return true;
      }
      if (isTemplate) return false;
      isInside ||= (this.kinds[at]! & TABLE_PART) === 0;
    }
    return false;
  }

  // In a `select` most start tags mean nothing; some end it and are read behind it.
  private opensInSelect(name: number, flags: number): boolean {
    if (name === OPTION || name === OPTGROUP || name === TEMPLATE || (flags & SCRIPT) !== 0) return true;
    if ((flags & ENDS_SELECT) === 0 && !((flags & TABLE_PART) !== 0 && this.isInTable(this.selectAt)))
      return false;
    this.cut(this.selectAt);
    return name !== SELECT;
  }

  private closesInSelect(name: number, flags: number): boolean {
    if (name === SELECT || name === OPTION || name === OPTGROUP || name === TEMPLATE) return true;
    if ((flags & TABLE_PART) === 0 || !this.isInTable(this.selectAt)) return false;
    this.cut(this.selectAt);
    return true;
  }

  private isInTable(before: number): boolean {
    for (let at = before - 1; at >= 0; at -= 1) if (this.isHtml(at, TABLE)) return true;
    return false;
  }

  /** True for an open element of HTML of that name. */
  private isHtml(at: number, name: number): boolean {
    return this.names[at] === name && (this.kinds[at]! & FOREIGN) === 0;
  }

  private closeHtml(name: number, flags: number): void {
    if (name === FORM && this.templates === 0) this.hasForm = false;
    if ((flags & SINGLE) !== 0 || this.depth === 0) return;
    if (this.selectAt !== -1 && !this.closesInSelect(name, flags)) return;
    if (this.isHtml(this.depth - 1, name)) return this.cut(this.depth - 1);
    if ((flags & FORMATTING) !== 0) return this.closeFormatting(name);
    const isOrdinary = (flags & SPECIAL) === 0;
    const barrier = isOrdinary ? SPECIAL : name === TEMPLATE ? 0 : SCOPE;
    for (let at = this.depth - 1; at >= 0; at -= 1) {
      const kind = this.kinds[at]!;
      // Only HTML's own elements are kept as headings.
      if (this.isHtml(at, name) || ((flags & HEADING) !== 0 && (kind & HEADING) !== 0))
        return name === FORM ? this.takeOut(at) : this.cut(at);
      if ((flags & TABLE_PART) !== 0) {
        if (this.isHtml(at, TABLE) || this.isHtml(at, TEMPLATE)) return;
      } else if ((kind & barrier) !== 0) return;
    }
  }

  // The adoption agency (section 13.2.6.4.7): what is special inside a formatting element stays open without it, all
  // else in it is closed.
  private closeFormatting(name: number): void {
    for (let at = this.depth - 1; at >= 0; at -= 1) {
      const kind = this.kinds[at]!;
      if (this.isHtml(at, name)) {
        for (let inside = this.depth - 1; inside >= at; inside -= 1)
          if ((this.kinds[inside]! & SPECIAL) === 0) this.takeOut(inside);
        return;
      }
      if ((kind & SCOPE) !== 0) return;
    }
  }

  private push(name: number, kind: number): void {
    if (this.depth === this.names.length) {
      if (this.depth === DEEPEST) return;
      this.names = widened(this.names);
      this.kinds = widened(this.kinds);
    }
    this.names[this.depth] = name;
    this.kinds[this.depth] = kind;
    this.depth += 1;
  }

  private cut(depth: number): void {
    const before = this.depth;
    this.depth = depth;
    if (this.selectAt >= depth) this.selectAt = -1;
    if (this.templates > 0) this.leaveTemplates(depth, before);
  }

  private takeOut(at: number): void {
    this.names.copyWithin(at, at + 1, this.depth);
    this.kinds.copyWithin(at, at + 1, this.depth);
    this.depth -= 1;
    if (this.selectAt > at) this.selectAt -= 1;
  }

  // A template inside a `select` is over: what follows stands in the `select` again.
  private leaveTemplates(from: number, to: number): void {
    const left = this.templates;
    for (let at = from; at < to; at += 1) if (this.isHtml(at, TEMPLATE)) this.templates -= 1;
    if (left === this.templates || this.selectAt !== -1) return;
    for (let at = this.depth - 1; at >= 0; at -= 1) {
      if (this.names[at] === TEMPLATE) return;
      if (this.isHtml(at, SELECT)) return void (this.selectAt = at);
    }
  }
}

function widened(list: Int32Array): Int32Array<ArrayBuffer> {
  const wide = new Int32Array(2 * list.length);
  wide.set(list);
  return wide;
}
