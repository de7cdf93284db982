const BLOCK_END =
  /<\/(?:p|h[2-4]|ul|ol|li|blockquote|pre|figure)>(?=<(?!\/(?:li|blockquote)>))|<(?:ul|ol|blockquote)>(?=<)|<hr>(?=<)/g;

/** Sets each block of a body's HTML on a line of its own, so that a person can find their way in it. */
export function laidOut(html: string): string {
  return html
    .split(/(<pre>[\s\S]*?<\/pre>)/)
    .map((piece) => (piece.startsWith("<pre>") ? piece : piece.replace(BLOCK_END, "$&\n")))
    .join("")
    .replace(/<\/pre>(?=<)/g, "</pre>\n");
}
