import { operatorCommand } from "../../src/server/operating/operator-command.ts";

/** What a command of an operator said, and its exit status. */
export interface Said {
  status: number | undefined;
  out: string;
  error: string;
}

/** Runs a command of an operator with settings of its own. */
export async function operator(
  folder: string,
  settings: Readonly<Record<string, string>>,
  ...[name, ...args]: [name: string, ...args: string[]]
): Promise<Said> {
  const lines = { out: [] as string[], error: [] as string[] };
  const status = await operatorCommand(name, args, folder, settings, {
    out: (line) => void lines.out.push(line),
    error: (line) => void lines.error.push(line),
  });
  return { status, out: lines.out.join("\n"), error: lines.error.join("\n") };
}
