import { parseArgs } from "node:util";
import { documentsIn } from "./files.ts";
import { rewriteDocuments, rewriteStream, type Outcome } from "./rewrite-files.ts";
import { apiRewriting, fileRewriting, type Place, type Rewriting } from "./rewriting.ts";
import { categoryOf, readSettings } from "./settings.ts";
import { Unusable } from "./unusable.ts";
import type { Terminal } from "./terminal.ts";

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
      exclude: { type: "string", multiple: true },
      page: { type: "string" },
      category: { type: "string" },
      check: { type: "boolean", default: false },
      report: { type: "string" },
      config: { type: "string" },
      version: { type: "boolean", default: false },
      help: { type: "boolean", short: "h", default: false },
    },
  });
  const [command, ...named] = positionals;
  if (values.version) {
    terminal.stdout.write(`${terminal.version}\n`);
    return 0;
  }
  if (values.help || command === undefined) {
    terminal.stdout.write(terminal.help);
    return values.help ? 0 : 2;
  }
  if (command !== "rewrite") throw new Unusable(`there is no command “${command}”; try maprope --help.`);
  const settings = await readSettings(values.config, terminal.folder);
  const format = values.report ?? settings.report ?? "text";
  if (!["text", "json", "none"].includes(format))
    throw new Unusable(`--report is text, json or none, not “${format}”.`);
  const rewriting = await rewritingOf(
    { ...settings, ...given(values) },
    values.host ?? settings.hosts ?? [],
    terminal,
  );
  const { page, category, check } = values;
  const placeOf = (own: string | undefined): Place => {
    const path = page ?? own;
    return { page: path, category: category ?? categoryOf(settings.categories, path) };
  };
  // What is named goes before what the settings name; nothing at all is standard input.
  const where = named.length > 0 ? named : (settings.files ?? ["-"]);
  const isStream = where.length === 1 && where[0] === "-";
  const outcome = isStream
    ? await rewriteStream(terminal, rewriting, placeOf(undefined), check)
    : await rewriteDocuments(
        await documentsIn(where, [...(settings.exclude ?? []), ...(values.exclude ?? [])]),
        rewriting,
        placeOf,
        check,
      );
  report(outcome, format, isStream && !check ? terminal.stderr : terminal.stdout, check);
  if (outcome.failed.length > 0) return 2;
  return check && outcome.files.some(isChanged) ? 1 : 0;
}

interface Source {
  rules?: string | undefined;
  site?: string | undefined;
  url?: string | undefined;
}

// Rules of a file go before a site of the settings, and a site before rules of the settings.
function given({ rules, site, url }: Source): Source {
  if (rules !== undefined) return { rules };
  return { ...(site === undefined ? {} : { site, rules: undefined }), ...(url === undefined ? {} : { url }) };
}

function rewritingOf(
  { rules, site, url }: Source,
  hosts: readonly string[],
  { env }: Terminal,
): Promise<Rewriting> | Rewriting {
  if (rules !== undefined) return fileRewriting(rules, hosts);
  return apiRewriting({
    url: url ?? env.MAPROPE_URL ?? "http://127.0.0.1:4600",
    site: needed(site, "give --rules FILE, or --site KEY of a running Map Rope."),
    token: needed(env.MAPROPE_API_TOKEN, "set MAPROPE_API_TOKEN to a token of that Map Rope."),
  });
}

function report(outcome: Outcome, format: string, out: Terminal["stdout"], check: boolean): void {
  if (format === "json") out.write(`${JSON.stringify(outcome, null, 2)}\n`);
  if (format !== "text") return;
  for (const { file, changes, refused } of outcome.files) {
    for (const { line, words, address } of refused)
      out.write(
        `${file}:${line}: “${words}” ${address}\n  is no address for links: it is removed, the words stay\n`,
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
