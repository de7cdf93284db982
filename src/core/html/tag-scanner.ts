import { flagsOf, hashed, knownName, nameOf, NO_NAME } from "./element-names.ts";
import { OpenElements } from "./open-elements.ts";
import { BANG, DASH, endsName, GREATER, isLetter, isUpper, QUESTION, SLASH } from "./signs.ts";
import { CUT, readTagBody, type ScannedAttribute } from "./tag-body.ts";

/** Receives what is found; offsets count from the start of the document. */
export interface ScanEvents {
  /** A start tag that is wanted, from `<` to just behind `>`. The name is given where it is one of the known ones. */
  startTag(known: string | undefined, tag: ScannedTag, attributes: ScannedAttribute[]): void;
  /** An end tag, and where its name stands. */
  endTag(known: string | undefined, nameStart: number, nameEnd: number): void;
  /** Text outside of tags, the content of scripts and styles included. */
  text(start: number, end: number): void;
}

/** Where a start tag stands. */
export interface ScannedTag {
  start: number;
  nameEnd: number;
  end: number;
  selfClosing: boolean;
}

// The states of the HTML standard's tokenizer (section 13.2.5) between which it goes on, by their names there.
const enum State {
  Data,
  RawText,
  ScriptData,
  ScriptDataEscaped,
  ScriptDataDoubleEscaped,
  Plaintext,
  CommentStart,
  Comment,
  BogusComment,
  CdataSection,
}

const NONE: readonly ScannedAttribute[] = [];
const CDATA = "[CDATA[";
const ENDS_ESCAPE = /<|-->/g;

/**
 * Finds the tags of an HTML document that comes in pieces as a browser without scripts finds them. It looks for `<` and
 * reads what can matter: tags to their end, attributes of those that are wanted; comments, scripts and styles are
 * passed over. Wherever the document is cut, the same is found. A tag that is cut off is kept, and read again once as
 * much again has come: however long it is, and in whatever pieces, the time grows with its length.
 */
export class TagScanner {
  private readonly events: ScanEvents;
  private readonly wanted: ReadonlySet<string> | undefined;
  private readonly open = new OpenElements();
  private state = State.Data;
  /** What could not be decided without what follows. */
  private carried = "";
  /** So much has to be there before it is worth looking again. */
  private enough = 0;
  private chunk = "";
  /** Offset of the chunk's first sign in the document. */
  private base = 0;
  private isLast = false;
  private rawName = "";
  private asked: readonly ScannedAttribute[] = NONE;

  /** Without `wanted`, every start tag is told; else those of these names, which must be known ones. */
  constructor(events: ScanEvents, wanted?: ReadonlySet<string>) {
    this.events = events;
    this.wanted = wanted;
  }

  /** Reads on. */
  write(piece: string): void {
    if (this.carried === "") this.chunk = piece;
    else {
      this.carried += piece;
      if (this.carried.length < this.enough && !this.isLast) return;
      this.chunk = this.carried;
    }
    this.enough = 0;
    const at = this.scan();
    this.carried = this.chunk.slice(at);
    this.base += at;
    this.chunk = "";
  }

  /** Nothing comes any more. A tag that is cut off is none (section 13.2.5, “EOF in tag”). */
  end(): void {
    this.isLast = true;
    this.write("");
    this.base += this.carried.length;
    this.carried = "";
  }

  /** Offset up to which everything was told; a tag that is cut off lies behind it. */
  get told(): number {
    return this.base;
  }

  // Reads the chunk; answers how far it could be read.
  private scan(): number {
    let at = 0;
    const { length } = this.chunk;
    while (at < length) {
      const from = at;
      const { state } = this;
      if (state === State.Data) at = this.scanData(at);
      else if (state <= State.Plaintext) at = this.scanText(at);
      else at = this.scanMarkup(at);
      if (at === from && this.state === state) break;
    }
    return at;
  }

  // Data state (13.2.5.1), tag open state (13.2.5.6) and end tag open state (13.2.5.7).
  private scanData(from: number): number {
    const { chunk } = this;
    let at = chunk.indexOf("<", from);
    for (; at !== -1; at = chunk.indexOf("<", at + 1)) {
      const sign = chunk.charCodeAt(at + 1);
      if (isLetter(sign)) {
        this.tellText(from, at);
        return this.scanTag(at, at + 1, false);
      }
      if (sign === SLASH) {
        const next = chunk.charCodeAt(at + 2);
        if (next !== next) break;
        this.tellText(from, at);
        if (isLetter(next)) return this.scanTag(at, at + 2, true);
        if (next === GREATER) return at + 3;
        this.state = State.BogusComment;
        return at + 2;
      }
      if (sign === BANG) {
        if (!this.isLast && this.mayBecomeMarkup(at + 2)) break;
        this.tellText(from, at);
        return this.openMarkup(at + 2);
      }
      if (sign === QUESTION) {
        this.tellText(from, at);
        this.state = State.BogusComment;
        return at + 1;
      }
      // The chunk ends here.
      if (sign !== sign) break;
    }
    return this.tellText(from, at === -1 || this.isLast ? chunk.length : at);
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

  // Tag name state (13.2.5.8), and the tag to its end. Answers the place of `<` where it is cut off.
  private scanTag(start: number, nameStart: number, isEndTag: boolean): number {
    const { chunk, base } = this;
    const { length } = chunk;
    let hash = NO_NAME;
    let nameEnd = nameStart;
    for (
      let sign = chunk.charCodeAt(nameEnd);
      sign > GREATER || !endsName(sign);
      sign = chunk.charCodeAt(nameEnd)
    ) {
      if (nameEnd >= length) return this.cutAt(start);
      hash = hashed(hash, sign);
      nameEnd += 1;
    }
    const known = this.verified(knownName(hash), nameStart, nameEnd);
    const isWanted =
      !isEndTag && (this.wanted === undefined || (known !== -1 && this.wanted.has(nameOf(known))));
    // Some attributes decide whether what follows is foreign content.
    const attributes = isWanted || (!isEndTag && this.open.asksAttributes(hash)) ? [] : undefined;
    const body = readTagBody(chunk, nameEnd, base, attributes);
    if (body === CUT) return this.cutAt(start);
    const end = body >> 1;
    const selfClosing = (body & 1) === 1;
    this.state = State.Data;
    const name = known === -1 ? undefined : nameOf(known);
    if (isEndTag) {
      this.open.close(hash, flagsOf(known));
      this.events.endTag(name, base + nameStart, base + nameEnd);
      return end + 1;
    }
    this.asked = attributes ?? NONE;
    const content = this.open.open(hash, flagsOf(known), selfClosing, this.hasAttribute);
    if (isWanted) {
      const tag = { start: base + start, nameEnd: base + nameEnd, end: base + end + 1, selfClosing };
      this.events.startTag(name, tag, attributes!);
    }
    if (content !== "data") {
      this.state =
        content === "raw" ? State.RawText : content === "script" ? State.ScriptData : State.Plaintext;
      this.rawName = name!;
    }
    return end + 1;
  }

  private cutAt(start: number): number {
    if (this.isLast) return this.chunk.length;
    this.enough = 2 * (this.chunk.length - start);
    return start;
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

  // Of the tag that is being read.
  private readonly hasAttribute = (names: readonly string[], values?: readonly string[]): boolean => {
    const { chunk, base } = this;
    return this.asked.some(({ nameStart, nameEnd, valueStart, valueEnd }) => {
      if (!names.includes(chunk.slice(nameStart - base, nameEnd - base).toLowerCase())) return false;
      return (
        values === undefined || values.includes(chunk.slice(valueStart - base, valueEnd - base).toLowerCase())
      );
    });
  };

  // Text that holds no tags but the one that ends it.
  private scanText(from: number): number {
    if (this.state === State.RawText) return this.scanRawText(from);
    return this.state === State.Plaintext ? this.tellText(from, this.chunk.length) : this.scanScript(from);
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
    return this.scanTag(at, at + 2, true);
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
    if (!endsName(chunk.charCodeAt(at + name.length))) return false;
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
}
