/** That a column is one of the path keys `$keys`: to the letter, or whatever the case of its letters. */
export function amongKeys(column: "published_key" | "path", anyLetters: boolean): string {
  return anyLetters
    ? `lower(${column}) IN (SELECT lower(asked) FROM unnest($keys::text[]) AS asked)`
    : `${column} = ANY($keys::text[])`;
}
