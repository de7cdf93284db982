import assert from "node:assert/strict";
import { test } from "node:test";
import { contract } from "../../contract/contract.ts";
import { fieldErrors } from "./problem.ts";

const JUNK: readonly unknown[] = [undefined, null, 7.5, "\u0000", [], {}, true, -1, [null], { x: 1 }];
// As the schema library puts it where nobody has said anything: for those who write schemas.
const RAW = /^Invalid|^Too (?:big|small)|expected|received|nonoptional|\bNaN\b|^Unrecognized|\[object/i;

const schemas = Object.values(contract).flatMap((subject) =>
  Object.values(subject).flatMap(({ method, path, body, query }) =>
    [body, query].flatMap((schema) => (schema ? [{ name: `${method} ${path}`, schema }] : [])),
  ),
);

/** Every object with one field of junk, where its fields are known; and junk itself. */
function* wrongFor(shape: Readonly<Record<string, unknown>> | undefined): Generator<unknown> {
  yield* JUNK;
  for (const field of Object.keys(shape ?? {})) for (const junk of JUNK) yield { [field]: junk };
}

test(`whatever is sent as one of ${schemas.length} bodies and queries, what is wrong is said in plain words at its field`, () => {
  const raw = new Set<string>();
  let refused = 0;
  for (const { name, schema } of schemas)
    for (const value of wrongFor((schema as { shape?: Record<string, unknown> }).shape)) {
      const result = schema.safeParse(value);
      if (result.success) continue;
      refused += 1;
      for (const { path, message } of fieldErrors(result.error))
        if (RAW.test(message)) raw.add(`${name} ${path}: ${message}`);
    }
  assert.ok(refused > 1_000, `only ${refused} were refused`);
  assert.deepEqual([...raw], []);
});
