import assert from "node:assert/strict";
import { test } from "node:test";
import { requestOf } from "./try.ts";

const parameters = [
  { name: "site", in: "path" as const, description: "", required: true, schema: {} },
  { name: "q", in: "query" as const, description: "", required: false, schema: {} },
  { name: "limit", in: "query" as const, description: "", required: false, schema: {} },
];

test("what was filled in is sent where it belongs, and what is empty is not", () => {
  const values = { site: "a/b", q: "a&b", limit: "" };
  assert.deepEqual(
    requestOf({ method: "GET", path: "/sites/{site}/routes", parameters }, undefined, { values, body: "" }),
    ["/api/v1/sites/a%2Fb/routes?q=a%26b", { method: "GET" }],
  );
});

test("a body goes in its media type", () => {
  const requestBody = { content: { "text/csv": { schema: {} } } };
  assert.deepEqual(
    requestOf({ method: "POST", path: "/x", requestBody }, "text/csv", { values: {}, body: "a,b" }),
    ["/api/v1/x", { method: "POST", headers: { "Content-Type": "text/csv" }, body: "a,b" }],
  );
});
