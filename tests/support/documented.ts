import assert from "node:assert/strict";
import { appendFileSync } from "node:fs";
import { Ajv2020, type ValidateFunction } from "ajv/dist/2020.js";
import formats from "ajv-formats";
import { contract } from "../../src/contract/contract.ts";
import { openApiDocument } from "../../src/contract/ground/openapi/document.ts";

interface Operation {
  operationId: string;
  responses: Record<string, { $ref?: string; content?: Record<string, { schema: object }> }>;
}

const document = openApiDocument(contract) as {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, object> };
};
const PROBLEM = { $ref: "#/components/schemas/Problem" };

const ajv = new Ajv2020({ strict: false, allErrors: true });
formats.default(ajv);
ajv.addSchema({ $id: "api", components: document.components });
const compiled = new Map<string, ValidateFunction>();

// Paths with fewer parameters first: “/routes/lint” is no id.
const paths = Object.keys(document.paths)
  .sort((a, b) => a.split("{").length - b.split("{").length)
  .map((path) => ({ path, form: new RegExp(`^${path.replace(/\{\w+\}/g, "[^/]+")}/?$`) }));

/** The operation of the API's document that a call is; undefined for what is none. */
export function operationAt(method: string, address: string): Operation | undefined {
  const path = address.split("?")[0]!;
  const asked = method === "HEAD" ? "get" : method.toLowerCase();
  const found = paths.find((one) => one.form.test(path) && document.paths[one.path]![asked]);
  return found && document.paths[found.path]![asked];
}

/**
 * Holds an answer against the API's document: its status is one that the operation may have, and a JSON body has its
 * shape, with nothing beside it. Operations that answered well are noted in the file that COVERED_CALLS names.
 */
export function assertDocumented(
  method: string,
  address: string,
  answer: { status: number; type: string; body: unknown },
): void {
  const operation = operationAt(method, address);
  if (!operation || answer.status === 304) return;
  const { status, type, body } = answer;
  const declared = operation.responses[String(status)];
  assert.ok(declared, `${operation.operationId} answered ${status}, which its document does not name`);
  if (status < 300 && process.env.COVERED_CALLS)
    appendFileSync(process.env.COVERED_CALLS, `${operation.operationId}\n`);
  if (!type.includes("json") || method === "HEAD") return;
  const schema = status < 400 ? declared.content?.["application/json"]?.schema : PROBLEM;
  assert.ok(
    schema,
    `${operation.operationId} answered JSON with ${status}, of which its document knows nothing`,
  );
  const validate = compiledFor(`${operation.operationId} ${status}`, schema);
  assert.ok(
    validate(body),
    `${operation.operationId} answered ${status} otherwise than its document says: ${ajv.errorsText(validate.errors)}`,
  );
}

function compiledFor(name: string, schema: object): ValidateFunction {
  const before = compiled.get(name);
  if (before) return before;
  const own = JSON.parse(JSON.stringify(schema).replaceAll('"#/components/', '"api#/components/')) as object;
  const validate = ajv.compile(own);
  compiled.set(name, validate);
  return validate;
}
