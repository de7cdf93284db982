import { compareKey } from "../../core/address/compare.ts";
import { routeKey } from "../../core/routes/match/address-form.ts";
import { ampersands } from "./migrations/008-ampersands.ts";
import { credits } from "./migrations/010-credits.ts";
import { decimals } from "./migrations/007-decimals.ts";
import assert from "node:assert/strict";
import { randomBytes } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { after, before, describe, test } from "node:test";
import pg from "pg";
import { freshStore } from "../../../tests/support/database.ts";
import { checksum, migrate, MIGRATIONS } from "./migrate.ts";
import { openStore, type Store } from "./store.ts";

const SCHEMAS = new URL("../../../tests/schemas/", import.meta.url);

// What somebody may have in a database of any age.
const DATA = [
  "INSERT INTO sites (key, name) VALUES ('garden', 'Garden')",
  "INSERT INTO hosts (site_id, name, role) VALUES (1, 'garden.example', 'primary')",
  "INSERT INTO people (email, name, role, password_hash) VALUES ('ida@garden.example', 'Ida', 'owner', 'x')",
  `INSERT INTO pages (site_id, path, key, title, body, html) VALUES (1, '/a', '/a', 'A', '{"type": "doc", "content": [{"type": "paragraph"}]}', '<p></p>')`,
  "INSERT INTO routes (site_id, kind, address, destination, status) VALUES (1, 'short', '/lamp', 'https://shop.example/', 302)",
  "INSERT INTO route_addresses (site_id, host, key, route_id) VALUES (1, '*', '/lamp', 1)",
  "INSERT INTO misses (site_id, host, key, times, bots, first_seen, last_seen) VALUES (1, 'garden.example', '/lmap', 3, 0, now(), now())",
  "INSERT INTO sign_in_failures (who) VALUES ('mail ida@garden.example')",
];
const CLICKS =
  "INSERT INTO clicks (at, route_id, class, device, visitor, referrer, page) VALUES ('2026-11-20T10:00:00Z', 1, 'person', 'phone', 'v', '', '')";
const MONTH =
  "CREATE TABLE clicks_2026_11 PARTITION OF clicks FOR VALUES FROM ('2026-11-01 00:00:00+00') TO ('2026-12-01 00:00:00+00')";
const CONVERSION =
  "INSERT INTO conversions (site_id, network, reference, at, kind, state, currency, commission, sub_id, program_word) VALUES (1, 'N', 'r1', now(), 'sale', 'approved', 'EUR', 100, 's', 'p')";

describe("a schema of any earlier day, with data in it", () => {
  let fresh: Awaited<ReturnType<typeof freshStore>>;
  before(async () => {
    fresh = await freshStore();
  });
  after(() => fresh.drop());

  for (const file of readdirSync(SCHEMAS).sort())
    test(`${file} becomes what a new one is, and keeps what it holds`, async () => {
      const sql = readFileSync(new URL(file, SCHEMAS), "utf8");
      const admin = process.env.TEST_POSTGRES_URL!;
      const name = `t_${randomBytes(6).toString("hex")}`;
      const url = admin.replace(/\/[^/]*$/, `/${name}`);
      await ask(admin, `CREATE DATABASE ${name}`);
      const store = openStore(url, 3);
      try {
        const hasMonths = sql.includes("PARTITION BY RANGE");
        await ask(
          url,
          [
            sql,
            ...DATA,
            ...(hasMonths ? [MONTH] : []),
            CLICKS,
            ...(sql.includes("CREATE TABLE conversions") ? [CONVERSION] : []),
          ].join(";\n"),
        );
        const { ran, differences } = await migrate(store);
        assert.ok(ran.includes("006-nothing-lost"));
        assert.deepEqual(differences, []);
        assert.deepEqual(await shapeOf(store), await shapeOf(fresh.store));
        const [kept] = await store.rows(
          "SELECT (SELECT count(*)::int FROM pages WHERE NOT admitted) AS pages, (SELECT count(*)::int FROM clicks) AS clicks, (SELECT count(*)::int FROM routes) AS routes, (SELECT count(*)::int FROM misses) AS misses",
        );
        assert.deepEqual(kept, { pages: 1, clicks: 1, routes: 1, misses: 1 });
        assert.deepEqual((await migrate(store)).ran, []);
      } finally {
        await store.close();
        await ask(admin, `DROP DATABASE ${name} WITH (FORCE)`);
      }
    });

  test("a step that ran in another text, or is not known here, is told", async () => {
    await fresh.store.rows(
      "UPDATE migration_checksums SET checksum = 'x' WHERE name = '003-routes' RETURNING name",
    );
    await fresh.store.rows("INSERT INTO migrations (name) VALUES ('999-later') RETURNING name");
    const { differences } = await migrate(fresh.store);
    assert.match(differences.join("\n"), /003-routes .* another text[^]*999-later .* newer version/);
  });
});

test("amounts that were counted as the runtime counts them are put right by ISO 4217", async () => {
  const { store, drop } = await freshStore();
  const row = (reference: string, currency: string) =>
    `(1, 'n', '${reference}', now(), 'sale', 'approved', '${currency}', 500, 70, '', '')`;
  await store.rows(
    `INSERT INTO conversions (site_id, network, reference, at, kind, state, currency, commission, amount, sub_id, program_word)
     VALUES ${row("a", "HUF")}, ${row("b", "IQD")}, ${row("c", "EUR")}, ${row("d", "JPY")} RETURNING reference`,
  );
  for (const statement of decimals.statements) await store.sequelize.query(statement as string);
  const rows = await store.rows(
    "SELECT reference AS r, commission::int AS c, amount::int AS a FROM conversions ORDER BY 1",
  );
  assert.deepEqual(rows, [
    { r: "a", c: 50_000, a: 7_000 },
    { r: "b", c: 500_000, a: 70_000 },
    { r: "c", c: 500, a: 70 },
    { r: "d", c: 500, a: 70 },
  ]);
  await drop();
});

test("keys that were kept with an encoded ampersand become what their addresses say", async () => {
  const { store, drop } = await freshStore();
  const routes: readonly (readonly [
    address: string,
    aliases: string,
    match: string,
    before: string,
    after: string,
  ])[] = [
    ["/q&a", "{}", "exact", "/q%26a", "/q&a"],
    ["/q%26a", "{}", "exact", "/q%26a", "/q%26a"],
    ["/a&b%26c", "{}", "exact", "/a%26b%26c", "/a&b%26c"],
    ["/x", "{/R&D,/s%26t}", "exact", "/r%26d", "/r&d"],
    ["/y", "{/R&D2,/s%26t2}", "exact", "/s%26t2", "/s%26t2"],
    ["/söme&x", "{}", "exact", "/s%C3%B6me%26x", "/s%C3%B6me&x"],
    ["/p&q", "{}", "prefix", "prefix:/p%26q", "prefix:/p&q"],
    ["/p%26q/(.*)", "{}", "pattern", "pattern:/p%26q/(.*)", "pattern:/p%26q/(.*)"],
    ["/plain", "{}", "exact", "/plain", "/plain"],
  ];
  await store.rows("INSERT INTO sites (key, name) VALUES ('garden', 'Garden') RETURNING id");
  for (const [index, [address, aliases, match, before]] of routes.entries()) {
    await store.rows(
      `INSERT INTO routes (id, site_id, kind, match, address, aliases, destination, destination_key, status)
       VALUES ($id, 1, 'short', $match, $address, $aliases::text[], 'https://s.example/r&d?x=a%26b', '//s.example/r%26d?x=a%26b', 302) RETURNING id`,
      { id: index + 1, match, address, aliases },
    );
    await store.rows(
      "INSERT INTO route_addresses (site_id, host, key, route_id) VALUES (1, $host, $before, $id) RETURNING key",
      { host: `h${index}`, before, id: index + 1 },
    );
  }
  await store.rows(
    `INSERT INTO pages (site_id, path, key, title, body, html, published, published_key, link_keys)
     VALUES (1, '/m&m', '/m%26m', 'M', '{}', '<p></p>', '{"path": "/m&m"}', '/m%26m', '{/q%26a,//s.example/r%26d?x=a%26b}') RETURNING id`,
  );
  await store.rows(
    "INSERT INTO misses (site_id, host, key, times, bots, first_seen, last_seen) VALUES (1, 'h', '/w%26w', 1, 0, now(), now()) RETURNING key",
  );
  await store.sequelize.transaction(async (transaction) => {
    for (const statement of ampersands.statements) await store.sequelize.query(statement, { transaction });
  });
  const keys = await store.rows<{ key: string }>("SELECT key FROM route_addresses ORDER BY route_id");
  assert.deepEqual(
    keys.map(({ key }) => key),
    routes.map(([, , , , after]) => after),
  );
  for (const [index, { key }] of keys.entries()) {
    const [address, aliases, match] = routes[index]!;
    const written = [address, ...aliases.slice(1, -1).split(",")].filter(Boolean);
    assert.ok(
      written.some((one) => routeKey(one, true, match as "exact") === key),
      key,
    );
  }
  const [others] = await store.rows(
    `SELECT (SELECT min(destination_key) FROM routes) AS destination, (SELECT max(destination_key) FROM routes) AS same,
       key, published_key AS published, link_keys AS links, (SELECT key FROM misses) AS miss FROM pages`,
  );
  const destination = compareKey("https://s.example/r&d?x=a%26b");
  assert.deepEqual(others, {
    destination,
    same: destination,
    key: "/m&m",
    published: "/m&m",
    links: ["/q&a", destination],
    miss: "/w&w",
  });
  await drop();
});

test("what was credited to another network's program, or against what a row names, is put right and told", async () => {
  const { store, drop } = await freshStore();
  await store.rows("INSERT INTO sites (key, name) VALUES ('garden', 'Garden') RETURNING id");
  for (const [name, network] of [
    ["Lens", "Ferry"],
    ["Wool", "Ferry"],
    ["Boats", "Harbour"],
    ["Own", ""],
  ])
    await store.rows("INSERT INTO programs (site_id, terms) VALUES (1, $terms::jsonb) RETURNING id", {
      terms: JSON.stringify({
        name,
        network,
        state: "approved",
        reportNames: name === "Wool" ? ["WOOL-DE"] : [],
      }),
    });
  const [lens, wool, boats] = [1, 2, 3];
  for (const [program, subId, page] of [
    [lens, "a-1", 11],
    [wool, "b-1", 12],
    [boats, "a-1", 13],
    [wool, "c-1", 14],
    [lens, "c-1", 15],
  ])
    await store.rows(
      "INSERT INTO issued_links (site_id, program_id, sub_id, page_id, destination, address, made_by) VALUES (1, $program, $subId, $page, 'x', $address, 'x') RETURNING id",
      { program, subId, page, address: `${program} ${subId}` },
    );
  const rows: readonly (readonly [
    reference: string,
    network: string,
    subId: string,
    word: string,
    was: number,
    wasPage: number | null,
    now: number | null,
    page: number | null,
  ])[] = [
    ["right", "Ferry", "a-1", "", lens, 11, lens, 11],
    ["other network's, by sub-ID", "Harbour", "a-1", "", lens, 11, boats, 13],
    ["other network's, named", "Harbour", "b-1", "boats", wool, 12, boats, null],
    ["other network's, unknown", "Harbour", "b-1", "", wool, 12, null, null],
    ["names another of the network", "Ferry", "a-1", "wool-de", lens, 11, null, null],
    ["names another, which has the label too", "Ferry", "c-1", "Wool", lens, 15, wool, 14],
    ["names what it was credited to", "Ferry", "b-1", "Wool", wool, 12, wool, 12],
    ["an unknown word", "Ferry", "b-1", "Woollens", wool, 12, wool, 12],
  ];
  for (const [reference, network, subId, word, was, page] of rows)
    await store.rows(
      `INSERT INTO conversions (site_id, network, reference, at, kind, state, currency, commission, sub_id, program_word, program_id, page_id)
       VALUES (1, $network, $reference, now(), 'sale', 'approved', 'EUR', 100, $subId, $word, $was, $page) RETURNING reference`,
      { reference, network, subId, word, was, page },
    );
  await store.rows(
    "INSERT INTO network_clicks (site_id, network, day, program_word, sub_id, program_id, page_id, clicks) VALUES (1, 'Harbour', '2026-11-01', '', 'a-1', 1, 11, 7) RETURNING clicks",
  );
  await store.sequelize.transaction(async (transaction) => {
    for (const statement of credits.statements) await store.sequelize.query(statement, { transaction });
  });
  const kept = await store.rows<{ reference: string; program: number | null; page: number | null }>(
    "SELECT reference, program_id::int AS program, page_id::int AS page FROM conversions",
  );
  const found = new Map(kept.map((row) => [row.reference, row]));
  for (const [reference, , , , , , now, page] of rows)
    assert.deepEqual(found.get(reference), { reference, program: now, page }, reference);
  assert.deepEqual(await store.rows("SELECT program_id::int AS program FROM network_clicks"), [
    { program: boats },
  ]);
  const told = await store.rows<{
    object: string;
    detail: { rows: number; of: string; was: string; now: string | null };
  }>("SELECT object, detail FROM audit WHERE action = 'earnings.correct' ORDER BY id");
  assert.equal(
    told
      .filter(({ detail }) => detail.of === "conversions")
      .reduce((sum, { detail }) => sum + detail.rows, 0),
    5,
  );
  assert.ok(told.some(({ detail }) => detail.was === "Lens" && detail.now === "Boats"));
  await drop();
});

test("steps that have run somewhere never change their text again", () => {
  assert.deepEqual(
    Object.fromEntries(MIGRATIONS.map((migration) => [migration.name, checksum(migration)])),
    JSON.parse(readFileSync(new URL("../../../tests/schemas-frozen.json", import.meta.url), "utf8")),
  );
});

async function ask(url: string, sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(sql).finally(() => client.end());
}

// Columns, indexes and constraints by name; the order of columns is nobody's concern, and months come and go.
async function shapeOf(store: Store): Promise<unknown> {
  const columns = await store.rows(
    `SELECT table_name AS t, column_name AS c, data_type AS type, is_nullable AS nullable, column_default AS usual, collation_name AS collation
     FROM information_schema.columns WHERE table_schema = 'public' AND table_name !~ '^clicks_\\d' ORDER BY 1, 2`,
  );
  const indexes = await store.rows(
    "SELECT indexdef AS d FROM pg_indexes WHERE schemaname = 'public' AND tablename !~ '^clicks_\\d' ORDER BY 1",
  );
  const constraints = await store.rows(
    `SELECT conrelid::regclass::text AS t, conname AS n, pg_get_constraintdef(oid) AS d FROM pg_constraint
     WHERE connamespace = 'public'::regnamespace AND conrelid::regclass::text !~ '^clicks_\\d' ORDER BY 1, 2`,
  );
  return { columns, indexes, constraints };
}
