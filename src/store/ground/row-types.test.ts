import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { fileURLToPath } from "node:url";
import pg from "pg";
import { freshStore } from "../../../tests/support/database.ts";
import { statementsIn } from "../../../tests/support/statements.ts";

const STORE = fileURLToPath(new URL("..", import.meta.url));
const statements = statementsIn(STORE);

/** What pg and Sequelize make of a column, by the name of its type in PostgreSQL. */
const KINDS: Readonly<Record<string, string>> = {
  bool: "boolean",
  int2: "number",
  int4: "number",
  float4: "number",
  float8: "number",
  int8: "string",
  numeric: "string",
  text: "string",
  varchar: "string",
  name: "string",
  uuid: "string",
  date: "string",
  timestamptz: "Date",
  timestamp: "Date",
  jsonb: "json",
  json: "json",
  bytea: "bytes",
  void: "void",
  _text: "string[]",
  _varchar: "string[]",
  _int8: "string[]",
  _int4: "number[]",
};

/** The types of PostgreSQL that a type of Sequelize stands for. */
const MODEL_KINDS: Readonly<Record<string, readonly string[]>> = {
  BIGINT: ["int8"],
  INTEGER: ["int4", "int2"],
  TEXT: ["text"],
  BOOLEAN: ["bool"],
  DATE: ["timestamptz"],
  DATEONLY: ["date"],
  JSONB: ["jsonb"],
  ARRAY: ["_text", "_int8"],
  BLOB: ["bytea"],
};

let client: pg.Client;
let drop: () => Promise<void>;
before(async () => {
  const fresh = await freshStore();
  drop = fresh.drop;
  client = new pg.Client({ connectionString: fresh.url });
  await client.connect();
  // A table of a report's import, which it makes for itself.
  await client.query(
    "CREATE TEMP TABLE later_conversions AS SELECT 0 AS line, true AS fresh, c.* FROM conversions c",
  );
});
after(async () => {
  await client.end();
  await drop();
});

interface Column {
  name: string;
  dataTypeID: number;
}

/** The columns of a statement as PostgreSQL describes them; nothing is executed (protocol, section 53.2.3). */
function describeStatement(text: string): Promise<Column[]> {
  return new Promise((resolve, reject) => {
    let columns: Column[] = [];
    const described = {
      submit(connection: Describing): void {
        connection.parse({ name: "", text, types: [] }, true);
        connection.describe({ type: "S", name: "" }, true);
        connection.sync();
      },
      handleRowDescription: ({ fields }: { fields: Column[] }) => void (columns = fields),
      handleError: reject,
      handleReadyForQuery: () => resolve(columns),
    };
    client.query(described as never);
  });
}
interface Describing {
  parse(query: { name: string; text: string; types: number[] }, more: boolean): void;
  describe(what: { type: "S"; name: string }, more: boolean): void;
  sync(): void;
}

const agrees = (declared: string, column: string): boolean =>
  declared === column || column === "json" || (declared === "json" && column.endsWith("[]"));

describe("what a statement says that it gets is what PostgreSQL gives", () => {
  for (const { where, sql, declared } of statements.filter(({ declared: shape }) => shape))
    test(where, async () => {
      assert.ok(
        sql,
        "its text is not known before it runs: give its changing part a name that stands for it",
      );
      const columns = await describeStatement(sql);
      const types = await typeNames(columns.map(({ dataTypeID }) => dataTypeID));
      const given = new Map(columns.map(({ name }, at) => [name, KINDS[types[at]!] ?? types[at]!]));
      assert.deepEqual([...declared!.keys()].sort(), [...given.keys()].sort(), "its columns");
      for (const [name, kind] of declared!)
        assert.ok(
          agrees(kind, given.get(name)!),
          `${name} is declared as ${kind}, and comes as ${given.get(name)}`,
        );
    });
});

const known = new Map<number, string>();
async function typeNames(ids: readonly number[]): Promise<string[]> {
  const asked = ids.filter((id) => !known.has(id));
  if (asked.length > 0) {
    const { rows } = await client.query<{ oid: number; typname: string }>(
      "SELECT oid::int, typname FROM pg_type WHERE oid = ANY($1::oid[])",
      [asked],
    );
    for (const { oid, typname } of rows) known.set(oid, typname);
  }
  return ids.map((id) => known.get(id)!);
}

describe("what a model says of its table is what the table has", () => {
  test("every attribute has a column of its kind", async () => {
    const { store, drop: dropOther } = await freshStore();
    try {
      for (const model of Object.values(store.sequelize.models).filter(
        ({ name }) => name !== "SequelizeMeta",
      )) {
        const columns = await store.rows<{ name: string; type: string; nullable: boolean }>(
          `SELECT column_name AS name, udt_name AS type, is_nullable = 'YES' AS nullable FROM information_schema.columns WHERE table_name = $table`,
          { table: String(model.getTableName()) },
        );
        const byName = new Map(columns.map((column) => [column.name, column]));
        for (const { field, type } of Object.values(model.getAttributes())) {
          const column = byName.get(field!);
          assert.ok(column, `${model.name}: there is no column ${field}`);
          const kind = MODEL_KINDS[(type as { key: string }).key] ?? [];
          assert.ok(
            kind.includes(column.type),
            `${model.name}.${field} is ${column.type}, not ${kind.join(" or ")}`,
          );
        }
      }
    } finally {
      await dropOther();
    }
  });
});
