import { endsName, EQUALS, GREATER, isSpace, QUOTE, SINGLE_QUOTE, SLASH } from "./signs.ts";

/** An attribute as it stands in the source. */
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

/** What `readTagBody` answers for a tag that the text ends before. */
export const CUT = -1;

/**
 * Reads a tag from behind its name on, with its attributes where somebody wants them; their offsets are told with `base`
 * added. Answers twice the offset of its `>`, and one more where it closes itself. The states of the standard's tokenizer
 * that it passes through (sections 13.2.5.32 to 13.2.5.40): before attribute name, attribute name, after attribute name,
 * before attribute value, the three values, self-closing start tag.
 */
export function readTagBody(
  text: string,
  nameEnd: number,
  base: number,
  attributes: ScannedAttribute[] | undefined,
): number {
  const { length } = text;
  for (let at = nameEnd; ;) {
    // Before attribute name state, and what leads back to it.
    let slashAt = -2;
    let sign = text.charCodeAt(at);
    while (isSpace(sign) || sign === SLASH) {
      if (sign === SLASH) slashAt = at;
      at += 1;
      sign = text.charCodeAt(at);
    }
    if (at >= length) return CUT;
    if (sign === GREATER) return 2 * at + (slashAt === at - 1 ? 1 : 0);
    // Attribute name state; an equals sign at its beginning belongs to it.
    const nameStart = at;
    do {
      at += 1;
      sign = text.charCodeAt(at);
    } while (sign > GREATER || (sign !== EQUALS && !endsName(sign) && at < length));
    const nameEndsAt = at;
    // After attribute name state.
    while (isSpace(sign)) {
      at += 1;
      sign = text.charCodeAt(at);
    }
    if (at >= length) return CUT;
    if (sign !== EQUALS) {
      attributes?.push({
        nameStart: base + nameStart,
        nameEnd: base + nameEndsAt,
        valueStart: -1,
        valueEnd: -1,
        end: base + nameEndsAt,
        written: "none",
      });
      continue;
    }
    // Before attribute value state.
    const behindSign = at + 1;
    do {
      at += 1;
      sign = text.charCodeAt(at);
    } while (isSpace(sign));
    if (at >= length) return CUT;
    let valueStart = at;
    let valueEnd: number;
    let written: ScannedAttribute["written"] = "quoted";
    if (sign === QUOTE || sign === SINGLE_QUOTE) {
      valueStart += 1;
      valueEnd = text.indexOf(sign === QUOTE ? '"' : "'", valueStart);
      if (valueEnd === -1) return CUT;
      at = valueEnd + 1;
    } else if (sign === GREATER) {
      valueStart = valueEnd = -1;
      written = "missing";
      at = behindSign;
    } else {
      while (sign > GREATER || (sign !== GREATER && !isSpace(sign) && at < length)) {
        at += 1;
        sign = text.charCodeAt(at);
      }
      if (at >= length) return CUT;
      valueEnd = at;
      written = "unquoted";
    }
    attributes?.push({
      nameStart: base + nameStart,
      nameEnd: base + nameEndsAt,
      valueStart: valueStart === -1 ? -1 : base + valueStart,
      valueEnd: valueEnd === -1 ? -1 : base + valueEnd,
      end: base + at,
      written,
    });
  }
}
