import { jobSchema } from "../../jobs.ts";
import { hasVersion, problemsOf, statusOf, type Call, type Contract } from "../call.ts";
import { exampleOf } from "./example.ts";
import { parameterWords, SUBJECTS } from "./words.ts";
import { componentsOf, type JsonSchema, type Components } from "./components.ts";
import { answerHeaders, HEADERS, PROBLEM, problemAnswers, PROBLEMS, requestHeaders } from "./problems.ts";

/** The OpenAPI 3.1 document of the API, written from its contract and the Zod schemas there. */
export function openApiDocument(contract: Readonly<Record<string, Contract>>): Record<string, unknown> {
  const components = componentsOf(contract);
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [subject, calls] of Object.entries(contract))
    for (const [name, call] of Object.entries(calls)) {
      const path = call.path.replace(/:(\w+)/g, "{$1}");
      const operation = {
        operationId: `${subject}.${name}`,
        tags: [subject],
        ...operationObject(call, components),
      };
      paths[path] = { ...paths[path], [call.method.toLowerCase()]: operation };
    }
  return {
    openapi: "3.1.0",
    info: {
      title: "Map Rope",
      version: "1",
      description:
        "Links, short links, redirects and their rules. Errors are problem documents (RFC 9457). Call HEAD where GET is " +
        "answered, OPTIONS anywhere.",
      contact: { name: "Whoever runs this installation" },
      license: { name: "Not chosen yet; all rights reserved", identifier: "LicenseRef-unlicensed" },
    },
    servers: [{ url: "/api/v1" }],
    security: [{ token: [] }, { session: [] }],
    tags: Object.keys(contract).map((name) => ({ name, description: SUBJECTS[name] })),
    paths,
    components: {
      schemas: { Problem: PROBLEM, ...components.schemas },
      responses: PROBLEMS,
      headers: HEADERS,
      securitySchemes: {
        token: { type: "http", scheme: "bearer" },
        session: { type: "apiKey", in: "cookie", name: "maprope_session" },
      },
    },
  };
}

function operationObject(call: Call, components: Components): Record<string, unknown> {
  const { schemas } = components;
  const parameters = [
    ...parametersIn("path", components.ofPath(call), schemas),
    ...parametersIn("query", components.ofQuery(call), schemas),
    ...requestHeaders(call),
  ];
  return {
    summary: call.summary,
    description: descriptionOf(call),
    ...(parameters.length > 0 ? { parameters } : {}),
    ...bodyObject(call, components),
    responses: {
      ...(call.job === "always" ? {} : { [statusOf(call)]: answerObject(call, components) }),
      ...(call.job ? { 202: jobAnswer(call, components) } : {}),
      ...problemAnswers(problemsOf(call)),
    },
  };
}

function descriptionOf(call: Call): string {
  const parts = [`${call.summary}.`.replace(/\.\.$/, "."), `Needs the role ${call.role}.`];
  if (call.ofLedger) parts.push("“Prefer: wait=SECONDS” waits longer for what was changed last.");
  if (call.job === "preferred") parts.push("“Prefer: respond-async” makes it a job.");
  return parts.join(" ");
}

// JSON that is a file has the shape that its format says.
function fileIn(media: string): object {
  return { schema: media.includes("json") ? {} : { type: "string", format: "binary" } };
}

function bodyObject(call: Call, components: Components): object {
  if (call.body) {
    const schema = components.ofBody(call)!;
    return { requestBody: { required: true, content: json(schema, components.schemas) } };
  }
  if (!call.bytes) return {};
  const content = Object.fromEntries(call.bytes.media.map((type) => [type, fileIn(type)]));
  return { requestBody: { required: true, content } };
}

function json(schema: JsonSchema, schemas: Components["schemas"]): object {
  return { "application/json": { schema, example: exampleOf(schema, schemas) } };
}

// What it comes to is told by the job, when it has come to it.
function jobAnswer(call: Call, components: Components): object {
  const job = components.of(jobSchema);
  const answer = components.ofAnswer(call);
  const result = answer ? { anyOf: [answer, { type: "null" }] } : { type: "null" };
  const schema = { allOf: [job, { type: "object", properties: { result } }] };
  return {
    description: "The job that does it",
    headers: answerHeaders(["Location"]),
    content: { "application/json": { schema, example: exampleOf(job, components.schemas) } },
  };
}

function answerObject(call: Call, components: Components): object {
  const description = "The answer";
  if (call.html) return { description, content: { "text/html": { schema: { type: "string" } } } };
  if (call.file)
    return { description, content: Object.fromEntries(call.file.media.map((type) => [type, fileIn(type)])) };
  if (!call.answer) return { description: "Done" };
  const schema = components.ofAnswer(call)!;
  const names = [...(statusOf(call) === 201 ? ["Location"] : []), ...(hasVersion(call) ? ["ETag"] : [])];
  return {
    description,
    ...(names.length > 0 ? { headers: answerHeaders(names) } : {}),
    content: json(schema, components.schemas),
  };
}

function parametersIn(
  where: "path" | "query",
  schema: JsonSchema | undefined,
  schemas: Components["schemas"],
): Record<string, unknown>[] {
  const required = (schema?.required ?? []) as string[];
  return Object.entries((schema?.properties ?? {}) as Record<string, JsonSchema>).map(([name, property]) => ({
    name,
    in: where,
    description: parameterWords(name),
    required: where === "path" || required.includes(name),
    schema: property,
    ...(where === "path" || required.includes(name) ? { example: exampleOf(property, schemas, name) } : {}),
  }));
}
