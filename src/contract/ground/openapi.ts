import { z } from "zod";
import { jobSchema } from "../jobs.ts";
import { problemsOf, statusOf, type Call, type Contract } from "./call.ts";

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

/** The OpenAPI 3.1 document of the API, written from its contract and the Zod schemas there. */
export function openApiDocument(contract: Readonly<Record<string, Contract>>): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [subject, calls] of Object.entries(contract))
    for (const [name, call] of Object.entries(calls)) {
      const path = call.path.replace(/:(\w+)/g, "{$1}");
      const operation = { operationId: `${subject}.${name}`, tags: [subject], ...operationObject(call) };
      paths[path] = { ...paths[path], [call.method.toLowerCase()]: operation };
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

function operationObject(call: Call): Record<string, unknown> {
  const parameters = [...parametersIn("path", call.params), ...parametersIn("query", call.asked)];
  const content = call.body
    ? { "application/json": { schema: jsonSchema(call.body, "input") } }
    : call.bytes && Object.fromEntries(call.bytes.media.map((type) => [type, BINARY]));
  return {
    summary: call.summary,
    description: `Needs the role ${call.role}.`,
    ...(parameters.length > 0 ? { parameters } : {}),
    ...(content ? { requestBody: { required: true, content } } : {}),
    responses: {
      ...(call.job === "always" ? {} : { [statusOf(call)]: answerObject(call) }),
      ...(call.job
        ? { 202: { description: "The job that does it", content: json(jsonSchema(jobSchema, "output")) } }
        : {}),
      ...Object.fromEntries(problemsOf(call).map((status) => [status, PROBLEM_ANSWER])),
      default: PROBLEM_ANSWER,
    },
  };
}

const BINARY = { schema: { type: "string", format: "binary" } };
const json = (schema: unknown): object => ({ "application/json": { schema } });
const PROBLEM_ANSWER = {
  description: "What is wrong",
  content: { "application/problem+json": { schema: { $ref: "#/components/schemas/Problem" } } },
};

function answerObject(call: Call): Record<string, unknown> {
  if (call.html)
    return { description: "The answer", content: { "text/html": { schema: { type: "string" } } } };
  if (call.file)
    return {
      description: "The answer",
      content: Object.fromEntries(call.file.media.map((type) => [type, BINARY])),
    };
  if (!call.answer) return { description: "Done" };
  const schema = jsonSchema(call.answer, "output");
  if (call.ofLedger)
    Object.assign(schema.properties as object, {
      current: {
        type: "boolean",
        description: "Whether what was changed last is in it; “Prefer: wait=SECONDS” waits longer for that.",
      },
    });
  return { description: "The answer", content: json(schema) };
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
