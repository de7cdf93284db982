import { flagsOf, hashed, knownName, nameOf, NO_NAME } from "./element-names.ts";
import { OpenElements } from "./open-elements.ts";

/** An attribute as it stands in the source; offsets count from the start of the document. */
export interface ScannedAttribute {
  nameStart: number;
  nameEnd: number;
  /** -1 where no value stands. */
  valueStart: number;
  valueEnd: number;
  /** Just behind it: behind the closing quote, or behind the `=` of one without a value. */
  end: number;
  /** How its value is written; "none" for a name alone, "missing" for a name and `=` with nothing behind. */
  written: "none" | "missing" | "unquoted" | "quoted";
}

/** Receives what is found; offsets count from the start of the document. */
export interface ScanEvents {
  /** A start tag that is wanted, from `<` to just behind `>`. The name is given where it is one of the known ones. */
  startTag(known: string | undefined, tag: ScannedTag, attributes: ScannedAttribute[]): void;
  /** An end tag, and where its name stands. */
  endTag(known: string | undefined, nameStart: number, nameEnd: number): void;
  /** Text outside of tags, the content of scripts and styles included. */
  text(start: number, end: number): void;
  /** A part of the source, from the start of the tag that is being told or decided about. */
  slice(start: number, end: number): string;
}

/** Where a start tag stands. */
export interface ScannedTag {
  start: number;
  nameEnd: number;
  end: number;
  selfClosing: boolean;
}

// The states of the HTML standard's tokenizer (section 13.2.5) that a scan for tags passes through, by their names there.
const enum State {
  Data,
  RawText,
  ScriptData,
  ScriptDataEscaped,
  ScriptDataDoubleEscaped,
  Plaintext,
  TagName,
  BeforeAttributeName,
  AttributeName,
  AfterAttributeName,
  BeforeAttributeValue,
  AttributeValueDoubleQuoted,
  AttributeValueSingleQuoted,
  AttributeValueUnquoted,
  SelfClosingStartTag,
  CommentStart,
  Comment,
  BogusComment,
  CdataSection,
}

const TAB = 9;
const LINE_FEED = 10;
const FORM_FEED = 12;
const RETURN = 13;
const SPACE = 32;
const BANG = 33;
const DOUBLE_QUOTE = 34;
const SINGLE_QUOTE = 39;
const DASH = 45;
const SLASH = 47;
const EQUALS = 61;
const GREATER = 62;
const QUESTION = 63;

/** No known name is longer. */
const LONGEST_NAME = 32;
const CDATA = "[CDATA[";
const ENDS_ESCAPE = /<|-->/g;

/**
 * Finds the tags of an HTML document that comes in pieces as a browser without scripts finds them. It looks for `<` and
 * reads what can matter: tags to their end, attributes of those that are wanted; comments, scripts and styles are
 * passed over. Wherever the document is cut, the same is found.
 */
export class TagScanner {
  private readonly events: ScanEvents;
  private readonly wanted: ReadonlySet<string> | undefined;
  private readonly open = new OpenElements();
  private state = State.Data;
  /** What could not be decided without what follows; the next piece begins with it. */
  private carried = "";
  private chunk = "";
  /** Offset of the chunk's first sign in the document. */
  private base = 0;
  private isLast = false;
  // The tag that is being read.
  private tagStart = 0;
  private nameEnd = 0;
  private isEndTag = false;
  private hash = NO_NAME;
  private known = -1;
  private isWanted = false;
  private reads = false;
  private selfClosing = false;
  private attributes: ScannedAttribute[] = [];
  private attribute: ScannedAttribute | undefined;
  private rawName = "";

  /** Without `wanted`, every start tag is told; else those of these names, which must be known ones. */
  constructor(events: ScanEvents, wanted?: ReadonlySet<string>) {
    this.events = events;
    this.wanted = wanted;
  }

  /** Reads on. */
  write(piece: string): void {
    this.chunk = this.carried === "" ? piece : this.carried + piece;
    this.carried = "";
    const at = this.scan();
    if (at < this.chunk.length) this.carried = this.chunk.slice(at);
    this.base += at;
    this.chunk = "";
  }

  /** Nothing comes any more. A tag that is cut off is none (section 13.2.5, “EOF in tag”). */
  end(): void {
    this.isLast = true;
    this.write("");
    this.base += this.carried.length;
    this.state = State.Data;
  }

  /** Offset up to which everything was told; a tag that may be wanted and is cut off lies behind it. */
  get told(): number {
    return this.state >= State.TagName && this.state <= State.SelfClosingStartTag && this.isHeld
      ? this.tagStart
      : this.base;
  }

  private get isHeld(): boolean {
    return this.state === State.TagName || this.reads;
  }

  // Reads the chunk; answers how far it could be read.
  private scan(): number {
    let at = 0;
    const { length } = this.chunk;
    while (at < length) {
      const from = at;
      const { state } = this;
      if (state === State.Data) at = this.scanData(at);
      else if (state >= State.TagName && state <= State.SelfClosingStartTag) at = this.scanTag(at);
      else if (state <= State.Plaintext) at = this.scanText(at);
      else at = this.scanMarkup(at);
      if (at === from && this.state === state) break;
    }
    return at;
  }

  // Data state (13.2.5.1), tag open state (13.2.5.6) and end tag open state (13.2.5.7).
  private scanData(from: number): number {
    const { chunk, base } = this;
    let at = chunk.indexOf("<", from);
    for (; at !== -1; at = chunk.indexOf("<", at + 1)) {
      const sign = chunk.charCodeAt(at + 1);
      if (isLetter(sign)) {
        if (at > from) this.events.text(base + from, base + at);
        return this.beginTag(at, at + 1, false);
      }
      if (sign === SLASH) {
        const next = chunk.charCodeAt(at + 2);
        if (next !== next) break;
        if (at > from) this.events.text(base + from, base + at);
        if (isLetter(next)) return this.beginTag(at, at + 2, true);
        if (next === GREATER) return at + 3;
        this.state = State.BogusComment;
        return at + 2;
      }
      if (sign === BANG) {
        if (!this.isLast && this.mayBecomeMarkup(at + 2)) break;
        if (at > from) this.events.text(base + from, base + at);
        return this.openMarkup(at + 2);
      }
      if (sign === QUESTION) {
        if (at > from) this.events.text(base + from, base + at);
        this.state = State.BogusComment;
        return at + 1;
      }
      if (sign !== sign) break;
    }
    const end = at === -1 || this.isLast ? chunk.length : at;
    if (end > from) this.events.text(base + from, base + end);
    return end;
  }

  // Markup declaration open state (13.2.5.42): what stands there could still become a comment or a CDATA section.
  private mayBecomeMarkup(at: number): boolean {
    const rest = this.chunk.slice(at, at + CDATA.length);
    return (
      (rest.length < 2 && "--".startsWith(rest)) || (rest.length < CDATA.length && CDATA.startsWith(rest))
    );
  }

  private openMarkup(at: number): number {
    if (this.chunk.startsWith("--", at)) {
      this.state = State.CommentStart;
      return at + 2;
    }
    if (this.chunk.startsWith(CDATA, at) && this.open.isForeign) {
      this.state = State.CdataSection;
      return at + CDATA.length;
    }
    this.state = State.BogusComment;
    return at;
  }

  private beginTag(start: number, nameStart: number, isEndTag: boolean): number {
    this.tagStart = this.base + start;
    this.isEndTag = isEndTag;
    this.hash = NO_NAME;
    this.known = -1;
    this.isWanted = this.reads = this.selfClosing = false;
    this.attribute = undefined;
    this.state = State.TagName;
    return this.scanTag(nameStart);
  }

  private scanTag(from: number): number {
    const { chunk, base } = this;
    const { length } = chunk;
    let at = from;
    while (at < length) {
      const sign = chunk.charCodeAt(at);
      switch (this.state) {
        case State.TagName: {
          let { hash } = this;
          let next = sign;
          while (!isSpace(next) && next !== SLASH && next !== GREATER) {
            hash = hashed(hash, next);
            at += 1;
            if (at === length) {
              this.hash = hash;
              return this.cutName(at);
            }
            next = chunk.charCodeAt(at);
          }
          this.hash = hash;
          this.endName(at);
          if (next === GREATER) return this.finish(at + 1);
          this.state = next === SLASH ? State.SelfClosingStartTag : State.BeforeAttributeName;
          at += 1;
          break;
        }
        case State.BeforeAttributeName:
          if (isSpace(sign)) at += 1;
          else if (sign === SLASH) {
            this.state = State.SelfClosingStartTag;
            at += 1;
          } else if (sign === GREATER) return this.finish(at + 1);
          else {
            this.beginAttribute(base + at);
            // An equals sign here is the first sign of a name.
            at += 1;
          }
          break;
        case State.AttributeName: {
          let next = sign;
          while (next !== EQUALS && !isSpace(next) && next !== SLASH && next !== GREATER) {
            at += 1;
            if (at === length) return at;
            next = chunk.charCodeAt(at);
          }
          if (this.attribute) this.attribute.nameEnd = this.attribute.end = base + at;
          if (next === EQUALS) {
            this.state = State.BeforeAttributeValue;
            if (this.attribute) {
              this.attribute.written = "missing";
              this.attribute.end = base + at + 1;
            }
          } else if (next === GREATER) return this.finish(at + 1);
          else this.state = next === SLASH ? State.SelfClosingStartTag : State.AfterAttributeName;
          at += 1;
          break;
        }
        case State.AfterAttributeName:
          if (isSpace(sign)) at += 1;
          else if (sign === SLASH) {
            this.state = State.SelfClosingStartTag;
            at += 1;
          } else if (sign === EQUALS) {
            this.state = State.BeforeAttributeValue;
            if (this.attribute) {
              this.attribute.written = "missing";
              this.attribute.end = base + at + 1;
            }
            at += 1;
          } else if (sign === GREATER) return this.finish(at + 1);
          else {
            this.beginAttribute(base + at);
            at += 1;
          }
          break;
        case State.BeforeAttributeValue:
          if (isSpace(sign)) at += 1;
          else if (sign === GREATER) return this.finish(at + 1);
          else {
            const isQuoted = sign === DOUBLE_QUOTE || sign === SINGLE_QUOTE;
            if (isQuoted) at += 1;
            if (this.attribute) {
              this.attribute.written = isQuoted ? "quoted" : "unquoted";
              this.attribute.valueStart = this.attribute.valueEnd = base + at;
            }
            this.state =
              sign === DOUBLE_QUOTE
                ? State.AttributeValueDoubleQuoted
                : isQuoted
                  ? State.AttributeValueSingleQuoted
                  : State.AttributeValueUnquoted;
          }
          break;
        case State.AttributeValueDoubleQuoted:
        case State.AttributeValueSingleQuoted: {
          const closing = chunk.indexOf(this.state === State.AttributeValueDoubleQuoted ? '"' : "'", at);
          if (closing === -1) return length;
          this.endValue(base + closing, base + closing + 1);
          // After attribute value (quoted) state (13.2.5.39): what follows at once begins another attribute.
          this.state = State.BeforeAttributeName;
          at = closing + 1;
          break;
        }
        case State.AttributeValueUnquoted: {
          let next = sign;
          while (!isSpace(next) && next !== GREATER) {
            at += 1;
            if (at === length) return at;
            next = chunk.charCodeAt(at);
          }
          this.endValue(base + at, base + at);
          if (next === GREATER) return this.finish(at + 1);
          this.state = State.BeforeAttributeName;
          at += 1;
          break;
        }
        default: // State.SelfClosingStartTag
          if (sign === GREATER) {
            this.selfClosing = true;
            return this.finish(at + 1);
          }
          this.state = State.BeforeAttributeName;
      }
    }
    return at;
  }

  // The chunk ends in a name: a short one is read again with what follows.
  private cutName(at: number): number {
    const start = this.tagStart - this.base;
    if (this.isLast || start < 0 || at - start > LONGEST_NAME) return at;
    this.state = State.Data;
    return start;
  }

  private endName(end: number): void {
    this.nameEnd = this.base + end;
    const nameStart = this.tagStart - this.base + (this.isEndTag ? 2 : 1);
    // A name that began in an earlier chunk is longer than any known one.
    this.known = nameStart < 0 ? -1 : this.verified(knownName(this.hash), nameStart, end);
    if (this.isEndTag) return;
    this.isWanted = this.wanted === undefined || (this.known !== -1 && this.wanted.has(nameOf(this.known)));
    // Some attributes decide whether what follows is foreign content.
    this.reads = this.isWanted || this.open.asksAttributes(this.hash);
    if (this.reads) this.attributes = [];
  }

  private verified(known: number, start: number, end: number): number {
    if (known === -1) return -1;
    const name = nameOf(known);
    if (name.length !== end - start) return -1;
    for (let at = 0; at < name.length; at += 1) {
      const sign = this.chunk.charCodeAt(start + at);
      if ((isUpper(sign) ? sign | 32 : sign) !== name.charCodeAt(at)) return -1;
    }
    return known;
  }

  private beginAttribute(start: number): void {
    this.state = State.AttributeName;
    if (!this.reads) return;
    this.attribute = { nameStart: start, nameEnd: start + 1, valueStart: -1, valueEnd: -1, end: start + 1, written: "none" }; // prettier-ignore
    this.attributes.push(this.attribute);
  }

  private endValue(valueEnd: number, end: number): void {
    if (!this.attribute) return;
    this.attribute.valueEnd = valueEnd;
    this.attribute.end = end;
    this.attribute = undefined;
  }

  private finish(at: number): number {
    const { known, open } = this;
    this.state = State.Data;
    const flags = flagsOf(known);
    if (this.isEndTag) {
      open.close(this.hash, flags);
      this.events.endTag(known === -1 ? undefined : nameOf(known), this.tagStart + 2, this.nameEnd);
      return at;
    }
    const { tagStart: start, nameEnd, selfClosing } = this;
    const content = open.open(this.hash, flags, selfClosing, this.hasAttribute);
    if (this.isWanted) {
      const tag = { start, nameEnd, end: this.base + at, selfClosing };
      this.events.startTag(known === -1 ? undefined : nameOf(known), tag, this.attributes);
    }
    this.isWanted = this.reads = false;
    if (content === "data") return at;
    this.state =
      content === "raw" ? State.RawText : content === "script" ? State.ScriptData : State.Plaintext;
    this.rawName = nameOf(known);
    return at;
  }

  // Text that holds no tags but the one that ends it.
  private scanText(from: number): number {
    switch (this.state) {
      case State.RawText:
        return this.scanRawText(from);
      case State.Plaintext:
        return this.tellText(from, this.chunk.length);
      default:
        return this.scanScript(from);
    }
  }

  // RCDATA and RAWTEXT states (13.2.5.2, 13.2.5.3).
  private scanRawText(from: number): number {
    const { chunk, rawName } = this;
    for (let at = chunk.indexOf("</", from); at !== -1; at = chunk.indexOf("</", at + 2)) {
      if (at + 3 + rawName.length > chunk.length && !this.isLast) return this.tellText(from, at);
      if (this.isName(rawName, at + 2)) return this.endRawText(from, at);
    }
    // The last sign may be the first of an end tag.
    const isCut = !this.isLast && chunk.endsWith("<");
    return this.tellText(from, chunk.length - (isCut ? 1 : 0));
  }

  private endRawText(from: number, at: number): number {
    this.tellText(from, at);
    return this.beginTag(at, at + 2, true);
  }

  // Script data states (13.2.5.4, 13.2.5.15 to 13.2.5.31).
  private scanScript(from: number): number {
    const { chunk, isLast } = this;
    for (let at = from; ;) {
      const isEscaped = this.state !== State.ScriptData;
      ENDS_ESCAPE.lastIndex = at;
      const found = isEscaped ? (ENDS_ESCAPE.exec(chunk)?.index ?? -1) : chunk.indexOf("<", at);
      if (found === -1) {
        const cut = isEscaped && !isLast ? Math.max(at, chunk.length - 2) : chunk.length;
        return this.tellText(from, cut);
      }
      if (chunk.charCodeAt(found) === DASH) {
        this.state = State.ScriptData;
        at = found + 3;
        continue;
      }
      // “</script” and the sign behind it are to be seen at once.
      if (found + 9 > chunk.length && !isLast) return this.tellText(from, found);
      at = found + 1;
      if (chunk.charCodeAt(at) === SLASH && this.isName("script", at + 1)) {
        if (this.state !== State.ScriptDataDoubleEscaped) return this.endRawText(from, found);
        this.state = State.ScriptDataEscaped;
      } else if (this.state === State.ScriptData && chunk.startsWith("!--", at)) {
        this.state = State.ScriptDataEscaped;
        // Its dashes may be those of the end at once.
        at = found + 2;
      } else if (this.state === State.ScriptDataEscaped && this.isName("script", at))
        this.state = State.ScriptDataDoubleEscaped;
    }
  }

  // A name, letter case aside, with a sign behind it that ends a name.
  private isName(name: string, at: number): boolean {
    const { chunk } = this;
    const behind = chunk.charCodeAt(at + name.length);
    if (!isSpace(behind) && behind !== SLASH && behind !== GREATER) return false;
    return chunk.slice(at, at + name.length).toLowerCase() === name;
  }

  private tellText(from: number, end: number): number {
    if (end > from) this.events.text(this.base + from, this.base + end);
    return end;
  }

  // Comments (13.2.5.43 to 13.2.5.52), bogus ones, CDATA sections (13.2.5.69).
  private scanMarkup(from: number): number {
    const { chunk, isLast } = this;
    const { length } = chunk;
    switch (this.state) {
      case State.CommentStart: {
        const isEmpty = chunk.charCodeAt(from) === GREATER;
        if (isEmpty || chunk.startsWith("->", from)) {
          this.state = State.Data;
          return from + (isEmpty ? 1 : 2);
        }
        if (length === from + 1 && chunk.charCodeAt(from) === DASH && !isLast) return from;
        this.state = State.Comment;
        return this.scanMarkup(from);
      }
      case State.Comment: {
        for (let at = chunk.indexOf("--", from); at !== -1; at = chunk.indexOf("--", at + 1)) {
          const isPlain = chunk.charCodeAt(at + 2) === GREATER;
          if (isPlain || chunk.startsWith("!>", at + 2)) {
            this.state = State.Data;
            return at + (isPlain ? 3 : 4);
          }
          if (at + 4 > length && !isLast) return at;
        }
        return isLast || chunk.charCodeAt(length - 1) !== DASH ? length : length - 1;
      }
      case State.CdataSection: {
        const end = chunk.indexOf("]]>", from);
        if (end === -1) return this.tellText(from, isLast ? length : Math.max(from, length - 2));
        this.tellText(from, end);
        this.state = State.Data;
        return end + 3;
      }
      default: {
        const end = chunk.indexOf(">", from);
        if (end === -1) return length;
        this.state = State.Data;
        return end + 1;
      }
    }
  }

  // Of the tag that is being read; asked only where what follows hangs on it.
  private readonly hasAttribute = (names: readonly string[], values?: readonly string[]): boolean =>
    this.attributes.some(({ nameStart, nameEnd, valueStart, valueEnd }) => {
      if (!names.includes(this.events.slice(nameStart, nameEnd).toLowerCase())) return false;
      return values === undefined || values.includes(this.events.slice(valueStart, valueEnd).toLowerCase());
    });
}

function isLetter(sign: number): boolean {
  return (sign >= 97 && sign <= 122) || isUpper(sign);
}

function isUpper(sign: number): boolean {
  return sign >= 65 && sign <= 90;
}

function isSpace(sign: number): boolean {
  return sign === SPACE || sign === LINE_FEED || sign === TAB || sign === RETURN || sign === FORM_FEED;
}
