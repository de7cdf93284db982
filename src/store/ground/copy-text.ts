import { once } from "node:events";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type pg from "pg";
import { from as copyFrom, to as copyTo } from "pg-copy-streams";
import type { Transaction } from "sequelize";

/**
 * Reads the rows of a query by COPY, some thousand at a time; each is its fields as text, null where PostgreSQL has
 * none. Rows as objects of the query layer cost several times as much. `sql` cannot have parameters.
 */
export async function* copyRows(transaction: Transaction, sql: string): AsyncGenerator<(string | null)[][]> {
  const { connection } = transaction as Transaction & { connection: pg.Client };
  const source = connection.query(copyTo(`COPY (${sql}) TO STDOUT`));
  const decoder = new TextDecoder();
  let rest = "";
  try {
    for await (const chunk of source.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
      const lines = (rest + decoder.decode(chunk, { stream: true })).split("\n");
      rest = lines.pop()!;
      if (lines.length > 0) yield lines.map(fieldsOf);
    }
  } finally {
    // Whoever stops early leaves rows on their way: the connection is of no use before they have arrived.
    if (!source.readableEnded && !source.errored) await once(source.resume(), "end");
  }
}

function fieldsOf(line: string): (string | null)[] {
  const fields: (string | null)[] = line.split("\t");
  if (!line.includes("\\")) return fields;
  return fields.map((field) => fieldOf(field!));
}

/** A field of COPY's text format, `\\N` being null. */
export function fieldOf(text: string): string | null {
  if (text === "\\N") return null;
  return text.includes("\\") ? text.replace(/\\(.)/g, (_whole, sign: string) => ESCAPES[sign] ?? sign) : text;
}

const ESCAPES: Readonly<Record<string, string>> = { n: "\n", r: "\r", t: "\t", b: "\b", f: "\f", v: "\v" };

/** What can be written by COPY; a list becomes an array of texts. */
export type CopyValue = string | number | boolean | null | readonly string[];

/** Writes rows by COPY: as parameters of an INSERT they cost several times as much. `into` is a table with its columns. */
export function copyInto(
  transaction: Transaction,
  into: string,
  rows: Iterable<readonly CopyValue[]>,
): Promise<void> {
  return copyPortions(transaction, into, [rows]);
}

/** The same for rows that come in portions, each written while the next one is made. */
export async function copyPortions(
  transaction: Transaction,
  into: string,
  portions: Iterable<Iterable<readonly CopyValue[]>> | AsyncIterable<Iterable<readonly CopyValue[]>>,
): Promise<void> {
  const { connection } = transaction as Transaction & { connection: pg.Client };
  const sink = connection.query(copyFrom(`COPY ${into} FROM STDIN`));
  await pipeline(Readable.from(pieces(portions)), sink);
}

const AT_ONCE = 500;

async function* pieces(
  portions: Iterable<Iterable<readonly CopyValue[]>> | AsyncIterable<Iterable<readonly CopyValue[]>>,
): AsyncGenerator<Buffer> {
  for await (const rows of portions) {
    let lines: string[] = [];
    for (const row of rows) {
      lines.push(lineOf(row));
      if (lines.length < AT_ONCE) continue;
      yield Buffer.from(lines.join(""));
      lines = [];
    }
    if (lines.length > 0) yield Buffer.from(lines.join(""));
  }
}

// Put together sign by sign: a list of its fields, joined, costs twice as much.
function lineOf(row: readonly CopyValue[]): string {
  let line = written(row[0]!);
  for (let at = 1; at < row.length; at += 1) line += `\t${written(row[at]!)}`;
  return `${line}\n`;
}

function written(value: CopyValue): string {
  if (value === null) return "\\N";
  if (typeof value === "string") return escaped(value);
  if (typeof value !== "object") return String(value);
  return value.length === 0 ? "{}" : escaped(`{${value.map(quoted).join(",")}}`);
}

function quoted(element: string): string {
  return `"${element.replace(/[\\"]/g, "\\$&")}"`;
}

/** A text as COPY's text format has it. */
export function escaped(text: string): string {
  return /[\\\n\r\t]/.test(text) ? text.replace(/[\\\n\r\t]/g, (sign) => WRITTEN[sign]!) : text;
}

const WRITTEN: Readonly<Record<string, string>> = { "\\": "\\\\", "\n": "\\n", "\r": "\\r", "\t": "\\t" };
