import assert from "node:assert/strict";
import { after, before, test } from "node:test";
import fc from "fast-check";
import { freshStore } from "../../../tests/support/database.ts";
import { copyInto, copyRows, type CopyValue } from "./copy-text.ts";

let fresh: Awaited<ReturnType<typeof freshStore>>;
before(async () => {
  fresh = await freshStore();
  await fresh.store.sequelize.query("CREATE TABLE copied (at integer, text text, list text[])");
});
after(() => fresh.drop());

test("what is written by COPY is read as it was, whatever it holds", async () => {
  const text = fc.string({
    unit: fc.constantFrom("a", "é", "😀", "\\", "\n", "\r", "\t", '"', "{", "}", ",", "N", " ", "NULL"),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(fc.option(text), fc.array(text))), async (given) => {
      const rows = given.map(([one, list], at): CopyValue[] => [at, one, list]);
      await fresh.store.transaction(async (transaction) => {
        await fresh.store.rows("DELETE FROM copied", {}, transaction);
        await copyInto(transaction, "copied (at, text, list)", rows);
        const read: unknown[] = [];
        for await (const part of copyRows(
          transaction,
          "SELECT at, text, to_json(list) FROM copied ORDER BY at",
        ))
          for (const [at, one, list] of part) read.push([Number(at), one, JSON.parse(list!)]);
        assert.deepEqual(read, rows);
      });
    }),
    { numRuns: 60 },
  );
});

test("whoever stops reading early leaves the connection fit for use", async () => {
  await fresh.store.transaction(async (transaction) => {
    for await (const part of copyRows(
      transaction,
      "SELECT repeat('x', 500) FROM generate_series(1, 20000)",
    )) {
      assert.ok(part.length > 0);
      break;
    }
    assert.deepEqual(await fresh.store.rows("SELECT 1 AS one", {}, transaction), [{ one: 1 }]);
  });
});
