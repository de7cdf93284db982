// `….OWNER.open` while it is written, `….sealed` when it is ended.
const ENDING = /\.(?:[\da-f]+\.open|sealed)$/;

/** Whether a file of a spool's folder is one of its segments. */
export function isSegment(file: string): boolean {
  return ENDING.test(file);
}

/** The name of a segment, by which the database knows how far it was copied. */
export function segmentOf(file: string): string {
  return file.replace(ENDING, "");
}
