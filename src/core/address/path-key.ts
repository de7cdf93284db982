// What may stand in a path as it is (RFC 3986 section 3.3): its sub-delimiters are all themselves, & among them.
const PLAIN = /^[A-Za-z0-9\-_~/.!$&'()*+,;=:@]*$/;
const UNRESERVED = /[A-Za-z0-9\-._~]/;

/**
 * The form of a path under which it is stored and looked up: RFC 3986 section 6.2.2 (percent-encoding
 * normalised, dot segments removed), query and fragment cut off, no trailing slash except for the root.
 * A stray `%` counts as the character itself. Double encoding stays double: `%252e` is not a dot.
 */
export function pathKey(path: string): string {
  let key = path;
  const end = key.search(/[?#]/);
  if (end !== -1) key = key.slice(0, end);
  key = spelledPath(key);
  if (key.includes("/.")) key = removeDotSegments(key);
  while (key.length > 1 && key.endsWith("/")) key = key.slice(0, -1);
  return key.startsWith("/") ? key : `/${key}`;
}

/** A path without query, as it is percent-encoded in a key. */
export function spelledPath(path: string): string {
  // Nearly every request is plain already; measured by `npm run bench -- redirects`.
  if (PLAIN.test(path)) return path;
  return path.replace(
    /%([0-9A-Fa-f]{2})|%|[^A-Za-z0-9\-_~/.!$&'()*+,;=:@%]+/g,
    (match, hex: string | undefined) => {
      if (hex === undefined) return match === "%" ? "%25" : encodeWellFormed(match);
      const character = String.fromCharCode(Number.parseInt(hex, 16));
      return UNRESERVED.test(character) ? character : `%${hex.toUpperCase()}`;
    },
  );
}

function encodeWellFormed(text: string): string {
  return encodeURIComponent(
    text.replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, "\uFFFD"),
  );
}

// RFC 3986 section 5.2.4, on a path that starts with a slash.
function removeDotSegments(path: string): string {
  const output: string[] = [];
  const segments = path.split("/");
  segments.forEach((segment, index) => {
    const last = index === segments.length - 1;
    if (segment === "..") {
      if (output.length > 1) output.pop();
      if (last) output.push("");
    } else if (segment === ".") {
      if (last) output.push("");
    } else output.push(segment);
  });
  return output.join("/") || "/";
}

/** The key of a short link's path: letter case does not count in what people type from memory. */
export function caseFoldedKey(key: string): string {
  if (!/[A-Z]/.test(key)) return key;
  return key.replace(/%[0-9A-F]{2}|[A-Z]+/g, (part) => (part.startsWith("%") ? part : part.toLowerCase()));
}
