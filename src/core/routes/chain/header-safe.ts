/** Percent-encodes what a header field value must not hold: controls, spaces and everything beyond ASCII. */
export function headerSafe(text: string): string {
  return text.replace(/[^\x21-\x7E]+/g, (run) => encodeURIComponent(run.toWellFormed()));
}
