/** Signs that mean something in tags, by their code. */
export const BANG = 33;
export const QUOTE = 34;
export const SINGLE_QUOTE = 39;
export const DASH = 45;
export const SLASH = 47;
export const EQUALS = 61;
export const GREATER = 62;
export const QUESTION = 63;

/** White space as HTML has it (section 13.2.5): tab, line feed, form feed, return, space. */
export function isSpace(sign: number): boolean {
  return sign <= 32 && (sign === 32 || sign === 10 || sign === 9 || sign === 13 || sign === 12);
}

/** True for what stands behind the name of a tag. */
export function endsName(sign: number): boolean {
  return sign === GREATER || sign === SLASH || isSpace(sign);
}

export function isUpper(sign: number): boolean {
  return sign >= 65 && sign <= 90;
}

export function isLetter(sign: number): boolean {
  return (sign >= 97 && sign <= 122) || isUpper(sign);
}
