import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { fileURLToPath } from "node:url";
import pg from "pg";
import { freshStore } from "../../../tests/support/database.ts";
import { programOf, rowTypesIn, statementsIn, type Columns } from "../../../tests/support/statements.ts";

const STORE = fileURLToPath(new URL("..", import.meta.url));
const program = programOf(STORE);
const statements = statementsIn(program);
const rowTypes = rowTypesIn(program, `${STORE}ground/models.ts`);

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
  UUID: ["uuid"],
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
  /** The table and the number of the column that it is; 0 where it is computed. */
  tableID: number;
  columnID: number;
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
      for (const [name, { kind }] of declared!)
        assert.ok(
          agrees(kind, given.get(name)!),
          `${name} is declared as ${kind}, and comes as ${given.get(name)}`,
        );
      for (const { name, column } of await mayBeNull(columns))
        assert.ok(
          declared!.get(name)!.isNullable || isSifted(sql, column),
          `${name} is declared as never null, and its column may be`,
        );
    });
});

// The columns that are some table's own, and may be null there; with their names there.
async function mayBeNull(columns: readonly Column[]): Promise<{ name: string; column: string }[]> {
  const own = columns.filter(({ tableID }) => tableID !== 0);
  const { rows } = await client.query<{ at: number; column: string }>(
    `SELECT at::int, attname::text AS column FROM unnest($1::oid[], $2::int[]) WITH ORDINALITY AS c (tab, col, at)
     JOIN pg_attribute a ON a.attrelid = c.tab AND a.attnum = c.col WHERE NOT a.attnotnull`,
    [own.map(({ tableID }) => tableID), own.map(({ columnID }) => columnID)],
  );
  return rows.map(({ at, column }) => ({ name: own[at - 1]!.name, column }));
}

// Rows in which it is null are left out by the statement itself.
function isSifted(sql: string, column: string): boolean {
  return new RegExp(`\\b${column} (?:IS NOT NULL|=)`).test(sql);
}

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

// The interface with exactly the attributes of a model.
function rowTypeOf(names: readonly string[]): Columns {
  const same = [...rowTypes.values()].find(
    (columns) => columns.size === names.length && names.every((name) => columns.has(name)),
  );
  assert.ok(same, `no row type has ${names.join(", ")}`);
  return same;
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
        const declared = rowTypeOf(Object.keys(model.getAttributes()));
        const byName = new Map(columns.map((column) => [column.name, column]));
        for (const [name, { field, type }] of Object.entries(model.getAttributes())) {
          const column = byName.get(field!);
          assert.ok(column, `${model.name}: there is no column ${field}`);
          const kind = MODEL_KINDS[(type as { key: string }).key] ?? [];
          assert.ok(
            kind.includes(column.type),
            `${model.name}.${field} is ${column.type}, not ${kind.join(" or ")}`,
          );
          assert.equal(
            declared.get(name)!.isNullable,
            column.nullable,
            `${model.name}.${name} and its column: may it be null?`,
          );
        }
      }
    } finally {
      await dropOther();
    }
  });
});
