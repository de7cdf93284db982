import assert from "node:assert/strict";
import { test } from "node:test";
import { fieldNames, placeErrors } from "./place-errors.ts";

const FIELDS = ["name", "hosts", "notice.text"];

test("an error stands at its field, or at the nearest part around it", () => {
  const placed = placeErrors(
    [
      { path: "name", message: "The name is missing." },
      { path: "hosts.1.name", message: "This is no host." },
      { path: "notice.text", message: "Too long." },
    ],
    FIELDS,
  );
  assert.deepEqual(placed.atFields, [
    { name: "name", message: "The name is missing." },
    { name: "hosts", message: "This is no host." },
    { name: "notice.text", message: "Too long." },
  ]);
  assert.deepEqual(placed.elsewhere, []);
});

test("of one field the first is shown; what the form does not have is told apart", () => {
  const placed = placeErrors(
    [
      { path: "name", message: "First." },
      { path: "name", message: "Second." },
      { path: "version", message: "Stale." },
      { path: "", message: "As a whole." },
      { path: "noticed", message: "Another." },
    ],
    FIELDS,
  );
  assert.deepEqual(placed.atFields, [{ name: "name", message: "First." }]);
  assert.deepEqual(placed.elsewhere, ["Stale.", "As a whole.", "Another."]);
});

test("where the form keeps something under another name, that is said once", () => {
  const placed = placeErrors([{ path: "key", message: "Taken." }], FIELDS, (path) =>
    path === "key" ? "name" : path,
  );
  assert.deepEqual(placed.atFields, [{ name: "name", message: "Taken." }]);
});

test("a form’s fields are those within its groups, too", () => {
  assert.deepEqual(fieldNames({ name: "", list: [{ a: 1 }], text: { domains: "", epc: null }, on: false }), [
    "name",
    "list",
    "text",
    "text.domains",
    "text.epc",
    "on",
  ]);
});
