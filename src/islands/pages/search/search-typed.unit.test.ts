import assert from "node:assert/strict";
import { test } from "node:test";
import { saidSearch, typedSearch } from "./search-typed.ts";

test("fields hold what is said, and say nothing of what is empty", () => {
  for (const said of [{}, { noindex: true }, { title: "Moss", canonical: "https://other.example/" }])
    assert.deepEqual(saidSearch(typedSearch(said)), said);
  assert.deepEqual(saidSearch({ ...typedSearch({ title: "Moss" }), title: "  ", language: "de" }), {
    language: "de",
  });
});
