import { parseArgs } from "node:util";
import { rewriteFolder, rewriteStream, type Outcome } from "./rewrite-files.ts";
import { apiRewriting, fileRewriting, type Rewriting } from "./rewriting.ts";
import { Unusable } from "./unusable.ts";
import type { Terminal } from "./terminal.ts";

const HELP = `maprope rewrite [FOLDER or FILE …]   applies a site's rules to HTML

Without a folder or with “-” it reads a document from standard input and writes it to standard output.
Folders are searched for .html, .htm and .xhtml files; files that change are written in place.

  --rules FILE       rules as JSON: what GET …/rules/bundle answers, or a list of rules that name no program or network
  --host NAME        a host of our own; may be given several times (with --rules)
  --site KEY         a site of a running Map Rope, whose rules are asked through the API
  --url URL          where it runs (default $MAPROPE_URL or http://127.0.0.1:4600);
                     its token is read from $MAPROPE_API_TOKEN
  --page PATH        the page's path, for rules that name pages (of a folder: each file's own)
  --category NAME    the category, for rules that name categories
  --check            writes nothing; fails with status 1 when something would change
  --report FORMAT    text (default), json or none; on standard error when the document goes to standard output

Status: 0 done, or nothing to change; 1 with --check, something would change; 2 it could not be done.
`;

/** Runs the command with these arguments; answers its exit status. */
export async function maprope(args: readonly string[], terminal: Terminal): Promise<number> {
  try {
    return await run(args, terminal);
  } catch (error) {
    if (!(error instanceof Unusable) && !isArgumentError(error)) throw error;
    terminal.stderr.write(`maprope: ${error.message}\n`);
    return 2;
  }
}

async function run(args: readonly string[], terminal: Terminal): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      rules: { type: "string" },
      host: { type: "string", multiple: true },
      site: { type: "string" },
      url: { type: "string" },
      page: { type: "string" },
      category: { type: "string" },
      check: { type: "boolean", default: false },
      report: { type: "string", default: "text" },
      help: { type: "boolean", short: "h", default: false },
    },
  });
  const [command, ...where] = positionals;
  if (values.help || command === undefined) {
    terminal.stdout.write(HELP);
    return values.help ? 0 : 2;
  }
  if (command !== "rewrite") throw new Unusable(`there is no command “${command}”; try maprope --help.`);
  if (!["text", "json", "none"].includes(values.report))
    throw new Unusable(`--report is text, json or none, not “${values.report}”.`);
  const { page, category } = values;
  const rewriting: Rewriting =
    values.rules === undefined
      ? apiRewriting({
          url: values.url ?? terminal.env.MAPROPE_URL ?? "http://127.0.0.1:4600",
          site: needed(values.site, "give --rules FILE, or --site KEY of a running Map Rope."),
          token: needed(terminal.env.MAPROPE_API_TOKEN, "set MAPROPE_API_TOKEN to a token of that Map Rope."),
        })
      : await fileRewriting(values.rules, values.host ?? []);
  const isStream = where.length === 0 || (where.length === 1 && where[0] === "-");
  const outcome = isStream
    ? await rewriteStream(terminal, rewriting, { page, category }, values.check)
    : await rewriteFolder(where, rewriting, { page, category }, values.check);
  report(outcome, values.report, isStream && !values.check ? terminal.stderr : terminal.stdout, values.check);
  if (outcome.failed.length > 0) return 2;
  return values.check && outcome.files.some(isChanged) ? 1 : 0;
}

function report(outcome: Outcome, format: string, out: Terminal["stdout"], check: boolean): void {
  if (format === "json") out.write(`${JSON.stringify(outcome, null, 2)}\n`);
  if (format !== "text") return;
  for (const { file, changes, refused } of outcome.files) {
    for (const { line, words, address } of refused)
      out.write(
        `${file}:${line}: “${words}” ${address}\n  may not leave the house: its address is taken away, the words stay\n`,
      );
    for (const { line, words, href, before, after, by } of changes)
      out.write(
        `${file}:${line}: “${words}” ${href}\n  ${look(before)} → ${look(after)}  (${by.join(", ")})\n`,
      );
  }
  for (const { file, message } of outcome.failed) out.write(`${file}: ${message}\n`);
  const changed = outcome.files.filter(isChanged);
  const links = changed.reduce((sum, { changes, refused }) => sum + changes.length + refused.length, 0);
  out.write(
    `${links} of ${outcome.links} links in ${changed.length} of ${outcome.files.length} documents ${check ? "would change" : "changed"}.\n`,
  );
}

function isChanged({ changes, refused }: Outcome["files"][number]): boolean {
  return changes.length + refused.length > 0;
}

function look({ rel, target }: { rel: string | null; target: string | null }): string {
  const parts = [rel === null ? "" : `rel="${rel}"`, target === null ? "" : `target="${target}"`];
  return parts.filter(Boolean).join(" ") || "no rel, no target";
}

function needed(value: string | undefined, otherwise: string): string {
  if (!value) throw new Unusable(otherwise);
  return value;
}

function isArgumentError(error: unknown): error is Error {
  return error instanceof Error && String((error as NodeJS.ErrnoException).code).startsWith("ERR_PARSE_ARGS");
}
