import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { createConfig, lintFromString } from "@redocly/openapi-core";
import { Validator } from "@seriousme/openapi-schema-validator";
import spectral from "@stoplight/spectral-core";
import rulesets from "@stoplight/spectral-rulesets";
import { contract } from "../../contract.ts";
import { parameterWords } from "./words.ts";
import { openApiDocument } from "./document.ts";

interface Operation {
  operationId: string;
  tags: string[];
  parameters?: { name: string; in: string; description: string }[];
  requestBody?: { content: Record<string, { schema: object; example?: unknown }> };
  responses: Record<string, { content?: Record<string, { schema: object; example?: unknown }> }>;
}

const document = openApiDocument(contract) as {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, unknown> };
};
const text = JSON.stringify(document);
const operations = Object.values(document.paths).flatMap((path) => Object.values(path));

describe("the document of the API", () => {
  test("is OpenAPI by three validators, examples included, with nothing to be warned of", async () => {
    const { valid, errors } = await new Validator().validate(JSON.parse(text) as never);
    assert.ok(valid, JSON.stringify(errors));
    const config = await createConfig({ extends: ["recommended"] });
    const linted = await lintFromString({ source: text, absoluteRef: "/openapi.json", config });
    assert.deepEqual(
      linted.map(({ ruleId, message }) => `${ruleId}: ${message}`),
      [],
    );
    const ruled = new spectral.Spectral();
    ruled.setRuleset({ extends: [[rulesets.oas as never, "recommended"]] });
    const found = await ruled.run(text);
    assert.deepEqual(
      found.map(({ code, message, path }) => `${code}: ${message} (${path.join("/")})`),
      [],
    );
  });

  test("says of every operation what it is, what goes wrong, and shows how it looks", () => {
    assert.equal(new Set(operations.map(({ operationId }) => operationId)).size, operations.length);
    for (const { operationId, tags, parameters = [], requestBody, responses } of operations) {
      assert.equal(tags.length, 1, operationId);
      for (const status of ["400", "401", "403", "429", "500", "503"])
        assert.ok(responses[status], `${operationId} ${status}`);
      for (const { name, in: where, description } of parameters)
        assert.ok(description && (where === "header" || description !== name), `${operationId}: ${name}`);
      const bodies = [requestBody, ...Object.values(responses)].flatMap((one) =>
        Object.entries(one?.content ?? {}),
      );
      for (const [media, { schema, example }] of bodies)
        if (media === "application/json" && Object.keys(schema).length > 0)
          assert.notEqual(example, undefined, `${operationId} has no example`);
    }
    assert.equal(parameterWords("no such parameter"), "no such parameter");
  });

  test("leads nowhere that is not there, and has nothing that nobody refers to", () => {
    const names = new Set([...text.matchAll(/"#\/components\/schemas\/([^"]+)"/g)].map(([, name]) => name!));
    assert.deepEqual([...names].sort(), Object.keys(document.components.schemas).sort());
    assert.doesNotMatch(text, /\$defs|__shared/);
  });
});
