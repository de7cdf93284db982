/** Text without its percent-encoding (RFC 3986 section 2.1); as it is where a percent sign encodes nothing. */
export function decoded(text: string): string {
  return decodedAs(text, text);
}

/** The same for a query as forms write it, where a plus is a space. */
export function decodedQuery(text: string): string {
  return decodedAs(text, text.replaceAll("+", " "));
}

function decodedAs(text: string, encoded: string): string {
  if (!encoded.includes("%")) return encoded;
  try {
    return decodeURIComponent(encoded);
  } catch {
    // A percent sign that encodes nothing stands for itself.
    return text;
  }
}
