/** What the command reads and writes, and what it is; a process has all of it. */
export interface Terminal {
  stdin: AsyncIterable<Uint8Array | string>;
  stdout: { write(text: string | Uint8Array): unknown };
  stderr: { write(text: string): unknown };
  /** Where it is run. */
  folder: string;
  version: string;
  help: string;
  env: Record<string, string | undefined>;
}

/** The terminal of this process: its streams, its environment and where it was started. */
export function terminalOf(about: Pick<Terminal, "version" | "help">): Terminal {
  const { stdin, stdout, stderr, env } = process;
  return { stdin, stdout, stderr, env, folder: process.cwd(), ...about };
}
