import { cp, mkdir, mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { maprope } from "../src/cli/maprope.ts";
import { someRules, wholeDocument } from "./samples.ts";

const FILES = 5_000;
const IN_A_FOLDER = 100;
const ROUNDS = 3;

/** The command over 5,000 files in place, beside copying them in the same round. */
export async function command(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), "maprope-command-"));
  try {
    const from = join(folder, "site");
    await makeFiles(from);
    const rules = join(folder, "rules.json");
    await writeFile(rules, JSON.stringify(someRules(20)));
    const rounds: { copied: number; rewritten: number; again: number }[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      const to = join(folder, `round-${round}`);
      const copied = await seconds(() => cp(from, to, { recursive: true }));
      const rewritten = await seconds(() => rewrite(to, rules));
      const again = await seconds(() => rewrite(to, rules));
      rounds.push({ copied, rewritten, again });
      await rm(to, { recursive: true });
    }
    console.table(rounds.map((round) => ({ ...round, "times copying": round.rewritten / round.copied })));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function makeFiles(folder: string): Promise<void> {
  for (let at = 0; at < FILES; at += IN_A_FOLDER) {
    const section = join(folder, `section-${at / IN_A_FOLDER}`);
    await mkdir(section, { recursive: true });
    await Promise.all(
      Array.from({ length: IN_A_FOLDER }, (_, one) =>
        writeFile(join(section, `page-${at + one}.html`), wholeDocument(at + one)),
      ),
    );
  }
}

async function rewrite(folder: string, rules: string): Promise<void> {
  const status = await maprope(
    ["rewrite", folder, "--rules", rules, "--report", "none", "--host", "own.example"],
    {
      stdin: (async function* () {})(),
      stdout: process.stdout,
      stderr: process.stderr,
      folder,
      version: "",
      help: "",
      env: {},
    },
  );
  if (status !== 0) throw new Error(`The command ended with ${status}.`);
}

async function seconds(work: () => Promise<void>): Promise<number> {
  const began = performance.now();
  await work();
  return Math.round(performance.now() - began) / 1000;
}
