import assert from "node:assert/strict";
import { test } from "node:test";
import type { ResolverOptions } from "react-hook-form";
import { z } from "zod";
import { schemaLater } from "./schema-later.ts";

const schema = z.strictObject({ mail: z.email("That is not a mail address.") });
type Values = z.input<typeof schema>;
const OPTIONS: ResolverOptions<Values> = { fields: {}, shouldUseNativeValidation: false };

test("a schema is fetched once, when a form is first checked, and says what is wrong at its field", async () => {
  let fetched = 0;
  const check = schemaLater<Values>(async () => {
    fetched += 1;
    return schema;
  });
  assert.equal(fetched, 0);
  const { errors } = await check({ mail: "mara" }, undefined, OPTIONS);
  assert.equal(errors.mail?.message, "That is not a mail address.");
  const { values, errors: none } = await check({ mail: "mara@lowlantern.example" }, undefined, OPTIONS);
  assert.deepEqual([values, none], [{ mail: "mara@lowlantern.example" }, {}]);
  assert.equal(fetched, 1);
});

test("what cannot be fetched is left to the server, and asked for again", async () => {
  let isThere = false;
  const check = schemaLater<Values>(async () => {
    if (!isThere) throw new TypeError("Failed to fetch");
    return schema;
  });
  assert.deepEqual(await check({ mail: "mara" }, undefined, OPTIONS), {
    values: { mail: "mara" },
    errors: {},
  });
  isThere = true;
  const { errors } = await check({ mail: "mara" }, undefined, OPTIONS);
  assert.equal(errors.mail?.message, "That is not a mail address.");
});
