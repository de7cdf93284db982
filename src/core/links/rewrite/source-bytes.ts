/**
 * Bytes as text, each byte a sign of its own. All that has a meaning in HTML is ASCII, in UTF-8 and in the older
 * encodings alike: a document in any of them can be read and changed so, and every other byte stays as it was.
 */

/** The bytes whose text it is. */
function bytesOfText(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let at = 0; at < text.length; at += 1) bytes[at] = text.charCodeAt(at);
  return bytes;
}

const UTF_8 = new TextDecoder("utf-8", { ignoreBOM: true });

/** What such a text says, where it is UTF-8; other encodings keep their ASCII. */
export function utf8Of(text: string): string {
  return /^[\0-\x7f]*$/.test(text) ? text : UTF_8.decode(bytesOfText(text));
}

/** True for the beginning of a document in UTF-16, which has no ASCII to go by (Encoding Standard, section 6). */
export function isUtf16(bytes: Uint8Array): boolean {
  const [first, second] = bytes;
  return (first === 0xff && second === 0xfe) || (first === 0xfe && second === 0xff);
}
