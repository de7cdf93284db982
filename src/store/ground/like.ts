/** A pattern for LIKE that finds the text anywhere, its own wildcards taken literally. */
export function containing(text: string): string {
  return `%${text.replace(/[\\%_]/g, "\\$&")}%`;
}
