import { operate, type Operating } from "./operate.ts";

interface Command {
  load(): Promise<(args: readonly string[], operating: Operating) => Promise<void>>;
  /** The schema stays as it is: it only looks, or brings a schema of its own. */
  leavesSchema?: boolean;
}

// Each is loaded when it is asked for: none waits for what the others need.
const COMMANDS: Readonly<Record<string, Command>> = {
  migrate: { load: async () => (await import("./doctor-command.ts")).migrateCommand },
  doctor: { load: async () => (await import("./doctor-command.ts")).doctorCommand, leavesSchema: true },
  person: { load: async () => (await import("./person-command.ts")).personCommand },
  site: { load: async () => (await import("./site-command.ts")).siteCommand },
  token: { load: async () => (await import("./token-command.ts")).tokenCommand },
  backup: { load: async () => (await import("./backup-command.ts")).backupCommand, leavesSchema: true },
  restore: { load: async () => (await import("./restore-command.ts")).restoreCommand, leavesSchema: true },
  edge: { load: async () => (await import("./edge-command.ts")).edgeCommand, leavesSchema: true },
  collect: { load: async () => (await import("./collect-command.ts")).collectCommand, leavesSchema: true },
  secret: { load: async () => (await import("./secret-command.ts")).secretCommand },
};

/** Runs a command of an operator; answers its exit status, or undefined where there is no such command. */
export async function operatorCommand(
  name: string,
  args: readonly string[],
  folder: string,
  env: Readonly<Record<string, string | undefined>>,
  io = { out: console.log, error: console.error } as { out(line: string): void; error(line: string): void },
): Promise<number | undefined> {
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (!command) return undefined;
  const work = await command.load();
  return operate(folder, env, (operating) => work(args, operating), io, {
    onlyLooks: command.leavesSchema === true,
  });
}
