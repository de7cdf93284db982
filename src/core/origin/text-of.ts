/**
 * A page's text by its byte order mark, what it was sent as, or what its head says (HTML section 13.2.3.1); else as UTF-8
 * where it is that, and as windows-1252 where it is not.
 */
export function textOf(bytes: Uint8Array, type: string): string {
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, 1_024));
  const marked = head.startsWith("\xef\xbb\xbf")
    ? "utf-8"
    : head.startsWith("\xff\xfe")
      ? "utf-16le"
      : head.startsWith("\xfe\xff")
        ? "utf-16be"
        : undefined;
  const said = marked ?? charsetIn(type) ?? charsetIn(head);
  const known = said !== undefined && isCharset(said);
  try {
    return new TextDecoder(known ? said : "utf-8", { fatal: !known }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

function charsetIn(text: string): string | undefined {
  return /(?:charset|encoding)\s{0,9}=\s{0,9}["']?([\w:-]{1,40})/i.exec(text)?.[1];
}

function isCharset(label: string): boolean {
  try {
    return new TextDecoder(label).encoding !== "";
  } catch {
    return false;
  }
}
