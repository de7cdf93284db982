import { z } from "zod";
import { wholeListQuery } from "../lists.ts";
import { isWholeList, type Operation } from "./operation.ts";

const PROBLEM = {
  type: "object",
  required: ["type", "title", "status"],
  properties: {
    type: { type: "string" },
    title: { type: "string" },
    status: { type: "integer" },
    detail: { type: "string" },
    errors: {
      type: "array",
      items: {
        type: "object",
        required: ["path", "message"],
        properties: { path: { type: "string" }, message: { type: "string" } },
      },
    },
  },
};

/** The OpenAPI 3.1 document of the API, written from the operations and their Zod schemas. */
export function openApiDocument(operations: readonly Operation[]): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const operation of operations) {
    const path = operation.path.replace(/:(\w+)/g, "{$1}");
    paths[path] = { ...paths[path], [operation.method.toLowerCase()]: operationObject(operation) };
  }
  return {
    openapi: "3.1.0",
    info: {
      title: "Map Rope",
      version: "1",
      description: "Links, short links, redirects and their rules. Errors are problem documents (RFC 9457).",
    },
    servers: [{ url: "/api/v1" }],
    security: [{ token: [] }, { session: [] }],
    paths,
    components: {
      schemas: { Problem: PROBLEM },
      securitySchemes: {
        token: { type: "http", scheme: "bearer" },
        session: { type: "apiKey", in: "cookie", name: "maprope_session" },
      },
    },
  };
}

function operationObject(operation: Operation): Record<string, unknown> {
  const parameters = [
    ...parametersIn("path", operation.params),
    ...parametersIn("query", operation.query),
    ...parametersIn("query", isWholeList(operation) ? wholeListQuery : undefined),
  ];
  return {
    summary: operation.summary,
    description: `Needs the role ${operation.role}.`,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(operation.body
      ? {
          requestBody: {
            required: true,
            content: { "application/json": { schema: jsonSchema(operation.body, "input") } },
          },
        }
      : {}),
    ...(operation.takesBytes
      ? {
          requestBody: {
            required: true,
            content: { "application/octet-stream": { schema: { type: "string", format: "binary" } } },
          },
        }
      : {}),
    responses: {
      [operation.status]: answerObject(operation),
      default: {
        description: "What is wrong",
        content: { "application/problem+json": { schema: { $ref: "#/components/schemas/Problem" } } },
      },
    },
  };
}

function answerObject(operation: Operation): Record<string, unknown> {
  if (operation.status === 204) return { description: "Done" };
  const schema = operation.answer ? jsonSchema(operation.answer, "output") : { type: "string" };
  if (operation.ofLedger)
    Object.assign(schema.properties as object, {
      current: {
        type: "boolean",
        description: "Whether what was changed last is in it; “Prefer: wait=SECONDS” waits longer for that.",
      },
    });
  return {
    description: "The answer",
    content: { [operation.media === "file" ? "*/*" : operation.media]: { schema } },
  };
}

function parametersIn(where: "path" | "query", parameters: z.ZodType | undefined): Record<string, unknown>[] {
  if (!parameters) return [];
  const schema = jsonSchema(parameters, "input") as {
    properties?: Record<string, unknown>;
    required?: string[];
  };
  return Object.entries(schema.properties ?? {}).map(([name, property]) => ({
    name,
    in: where,
    required: schema.required?.includes(name) ?? false,
    schema: property,
  }));
}

function jsonSchema(schema: z.ZodType, io: "input" | "output"): Record<string, unknown> {
  const { $schema, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: "any" }) as Record<
    string,
    unknown
  >;
  return rest;
}
