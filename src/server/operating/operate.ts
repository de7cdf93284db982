import { parseArgs, type ParseArgsConfig } from "node:util";
import type { Actor } from "../../core/people/actor.ts";
import type { Store } from "../../store/ground/store.ts";
import { openStore } from "../../store/ground/store.ts";
import { migrate } from "../../store/ground/migrate.ts";
import { readConfig, type Config } from "../config.ts";
import { databaseOf, type Ends } from "../database.ts";
import { environmentOf } from "../environment.ts";
import { reachable } from "../starting.ts";

/** What a command of an operator works with. */
export interface Operating {
  store: Store;
  config: Config;
  say(line: string): void;
}

/** Who does what an operator does on the machine itself. */
export const HOUSE: Actor = { name: "the operator", role: "owner" };

/** A command that cannot be done as it was given: told in one sentence, with status 2. */
export class WrongUsage extends Error {}

/**
 * What a command is to do, with what, and its options. Throws a WrongUsage that says `usage` where there are more words than
 * those two, or options that it has not.
 */
export function argumentsOf<const O extends NonNullable<ParseArgsConfig["options"]>>(
  args: readonly string[],
  options: O,
  usage: string,
) {
  try {
    const { values, positionals } = parseArgs({ args: [...args], allowPositionals: true, options });
    const [what, which, ...more] = positionals;
    if (more.length > 0) throw new WrongUsage(usage);
    return { what, which, values };
  } catch (error) {
    throw new WrongUsage(usage, { cause: error });
  }
}

/**
 * Runs a command on this machine, over the database that the settings name; brings its schema up to date first, unless the
 * command only looks. Answers the exit status: 0 done, 1 it could not be done, 2 the command is not one.
 */
export async function operate(
  folder: string,
  env: Readonly<Record<string, string | undefined>>,
  work: (operating: Operating) => Promise<void>,
  io: { out(line: string): void; error(line: string): void },
  { onlyLooks = false } = {},
): Promise<number> {
  const ends: Ends = [];
  try {
    const config = readConfig({ ...environmentOf(folder, env), MAPROPE_DEMO: "0" }, folder);
    const store = openStore(await databaseOf(config, ends), 2);
    ends.push(() => store.close());
    if (!onlyLooks) {
      await reachable(store);
      await migrate(store);
    }
    await work({ store, config, say: io.out });
    return 0;
  } catch (error) {
    for (const line of (error instanceof Error ? error.message : String(error)).split("\n"))
      io.error(`maprope: ${line}`);
    return error instanceof WrongUsage ? 2 : 1;
  } finally {
    for (const end of ends.reverse()) await end();
  }
}
