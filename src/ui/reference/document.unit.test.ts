import assert from "node:assert/strict";
import { describe, test } from "node:test";
import {
  boundWords,
  callsOf,
  fieldsOf,
  shapesOf,
  typeWords,
  type ApiDocument,
  type Operation,
} from "./document.ts";

const operation = (tag: string): Operation => ({
  operationId: tag,
  tags: [tag],
  summary: "",
  description: "",
  responses: {},
});

describe("the reference of the API", () => {
  test("has the calls of a subject, with their methods and paths", () => {
    const document: ApiDocument = {
      tags: [],
      paths: { "/a": { get: operation("a"), post: operation("b") }, "/c": { put: operation("a") } },
      components: { schemas: {}, responses: {} },
    };
    assert.deepEqual(
      callsOf(document, "a").map(({ method, path }) => `${method} ${path}`),
      ["GET /a", "PUT /c"],
    );
  });

  const types: readonly (readonly [shape: object, words: string])[] = [
    [{ $ref: "#/components/schemas/Route" }, "Route"],
    [{ type: "array", items: { $ref: "#/components/schemas/Route" } }, "list of Route"],
    [{ type: ["string", "null"] }, "string | null"],
    [{ type: "string", format: "date-time" }, "date-time"],
    [{ enum: ["on", "off"] }, '"on" | "off"'],
    [{ anyOf: [{ type: "integer" }, { type: "null" }] }, "integer | null"],
    [{ type: "object", additionalProperties: { type: "string" } }, "object of string"],
    [{ const: 3 }, "3"],
    [{}, "any"],
  ];
  for (const [shape, words] of types)
    test(`calls a shape ${words}`, () => assert.equal(typeWords(shape), words));

  test("says bounds, and what is meant where nothing is said", () => {
    assert.equal(
      boundWords({ minimum: 1, maximum: 500, default: 100 }),
      "from 1, to 500, 100 unless said otherwise",
    );
    assert.equal(boundWords({ type: "string" }), "");
  });

  test("finds fields in lists and choices, each once", () => {
    const fields = fieldsOf({
      anyOf: [
        { properties: { a: { type: "string" } }, required: ["a"] },
        { items: { properties: { a: { type: "integer" }, b: {} } } },
      ],
    });
    assert.deepEqual(
      fields.map(({ name, isRequired }) => [name, isRequired]),
      [
        ["a", true],
        ["b", false],
      ],
    );
  });

  test("finds the shapes that shapes refer to, in circles too", () => {
    const ref = (name: string) => ({ $ref: `#/components/schemas/${name}` });
    const schemas = { A: { properties: { b: ref("B") } }, B: { items: ref("A") }, C: {} };
    assert.deepEqual(shapesOf([ref("A")], schemas), ["A", "B"]);
  });
});
