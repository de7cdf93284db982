/** A step of the schema: its statements run in one transaction. Once it has run somewhere its text never changes again. */
export interface Migration {
  name: string;
  statements: readonly string[];
}
