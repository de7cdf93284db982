import { examine } from "./doctor.ts";
import { WrongUsage, type Operating } from "./operate.ts";

/** Says of all that an installation needs how it is, a line each. Throws an Error when something is to be done. */
export async function doctorCommand(
  args: readonly string[],
  { store, config, say }: Operating,
): Promise<void> {
  if (args.length > 0) throw new WrongUsage("say “doctor” alone; it looks at everything.");
  const found = await examine(config, store);
  const width = Math.max(...found.map(({ what }) => what.length));
  for (const { what, isWell, says } of found)
    say(`${isWell ? "well " : "to do"}  ${what.padEnd(width)}  ${says}`);
  const ill = found.filter(({ isWell }) => !isWell).length;
  if (ill > 0) throw new Error(`${ill} of ${found.length} ${ill === 1 ? "is" : "are"} to be corrected.`);
}

/** Brings the schema of the database up to date; that is done before any command. */
export async function migrateCommand(args: readonly string[], { say }: Operating): Promise<void> {
  if (args.length > 0) throw new WrongUsage("say “migrate” alone.");
  say("The schema is up to date.");
}
