/** What the command reads and writes; a process has all of it. */
export interface Terminal {
  stdin: AsyncIterable<Uint8Array | string>;
  stdout: { write(text: string | Uint8Array): unknown };
  stderr: { write(text: string): unknown };
  env: Record<string, string | undefined>;
}
