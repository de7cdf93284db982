import { z } from "zod";
import { jobSchema } from "../../jobs.ts";
import type { Call, Contract } from "../call.ts";
import { NAMED, NAMED_SENT } from "./named.ts";

/** A JSON Schema (draft 2020-12), as OpenAPI 3.1 has it. */
export type JsonSchema = Record<string, unknown>;

/** The shapes of the document, and where each call finds its own. */
export interface Components {
  schemas: Readonly<Record<string, JsonSchema>>;
  of(schema: z.ZodType): JsonSchema;
  ofPath(call: Call): JsonSchema | undefined;
  ofQuery(call: Call): JsonSchema | undefined;
  ofBody(call: Call): JsonSchema | undefined;
  ofAnswer(call: Call): JsonSchema | undefined;
}

type Names = Map<z.ZodType, string>;

const PREFIX = "#/components/schemas/";

/**
 * Writes every schema of the contract once, under a name: that of NAMED, or of the first call that has it. What is sent
 * may be written otherwise than it is answered (defaults, text that is repaired): then it is “…Input” there.
 */
export function componentsOf(contract: Readonly<Record<string, Contract>>): Components {
  const sent = byShape(NAMED_SENT);
  const answered = byShape(NAMED);
  const parameters: Names = new Map();
  answered.set(jobSchema, "Job");
  for (const [subject, ofSubject] of Object.entries(contract))
    for (const [name, call] of Object.entries(ofSubject)) {
      const own = capital(subject) + capital(name);
      if (call.body && !sent.has(call.body)) sent.set(call.body, `${own}Body`);
      if (call.answer && !answered.has(call.answer)) answered.set(call.answer, `${own}Answer`);
      if (call.asked && !parameters.has(call.asked)) parameters.set(call.asked, `${own}Query`);
      if (!parameters.has(call.params)) parameters.set(call.params, `${own}Path`);
    }
  const output = write(answered, "output");
  // A query may hold what the bodies hold.
  const input = write(new Map([...sent, ...parameters]), "input");
  const renamed = differing(input, output);
  const inputs = Object.fromEntries(
    Object.entries(input).map(([name, schema]) => [renamed(name), withRefs(schema, renamed)]),
  );
  const calls = Object.values(contract).flatMap((subject) => Object.values(subject));
  const roots = calls.flatMap(({ body, answer }) => [
    ...(body ? [renamed(sent.get(body)!)] : []),
    ...(answer ? [answered.get(answer)!] : []),
  ]);
  const asked = [...parameters.values()].flatMap((name) => refsOf(inputs[name]));
  const schemas = reachable({ ...inputs, ...output }, ["Job", ...roots, ...asked]);
  for (const call of calls)
    if (call.ofLedger && call.answer) addCurrent(schemas[answered.get(call.answer)!]!);
  const reference = (name: string): JsonSchema => ({ $ref: PREFIX + name });
  return {
    schemas,
    of: (schema) => reference(answered.get(schema)!),
    ofPath: ({ params }) => inputs[parameters.get(params)!],
    ofQuery: ({ asked }) => asked && inputs[renamed(parameters.get(asked)!)],
    ofBody: ({ body }) => body && reference(renamed(sent.get(body)!)),
    ofAnswer: ({ answer }) => answer && reference(answered.get(answer)!),
  };
}

function byShape(named: Readonly<Record<string, z.ZodType>>): Names {
  return new Map(Object.entries(named).map(([name, schema]) => [schema, name]));
}

function write(names: Names, io: "input" | "output"): Record<string, JsonSchema> {
  const registry = z.registry<{ id: string }>();
  for (const [schema, id] of names) registry.add(schema, { id });
  const { schemas } = z.toJSONSchema(registry, {
    io,
    uri: (id) => PREFIX + id,
    unrepresentable: "any",
    override: ({ zodSchema, jsonSchema }) => {
      if (io === "output" && isRepairedText(zodSchema)) jsonSchema.type = "string";
    },
  });
  return Object.fromEntries(
    Object.entries(schemas).map(([name, schema]) => [name, plain(schema as JsonSchema) as JsonSchema]),
  );
}

// Text that is repaired as it comes in is text as it goes out.
function isRepairedText(schema: z.core.$ZodType): boolean {
  const { def } = schema._zod as { def: { type: string; in?: z.core.$ZodType; out?: z.core.$ZodType } };
  return def.type === "pipe" && def.in?._zod.def.type === "string" && def.out?._zod.def.type === "transform";
}

// Without what says nothing: names of its own, the bounds of every whole number, the form of every time.
function plain(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plain);
  if (typeof value !== "object" || value === null) return value;
  const { $schema: _, $id: __, ...rest } = value as JsonSchema;
  if (Math.abs(Number(rest.minimum)) === Number.MAX_SAFE_INTEGER) delete rest.minimum;
  if (rest.maximum === Number.MAX_SAFE_INTEGER) delete rest.maximum;
  if (rest.format !== undefined && typeof rest.pattern === "string") delete rest.pattern;
  // What may be one thing or anything may be anything.
  if (Array.isArray(rest.anyOf) && rest.anyOf.some((one) => JSON.stringify(one) === "{}")) delete rest.anyOf;
  if (JSON.stringify(rest.propertyNames) === '{"type":"string"}') delete rest.propertyNames;
  return Object.fromEntries(Object.entries(rest).map(([key, one]) => [key, plain(one)]));
}

// The name that a shape has where it is sent: its own, unless it, or what it refers to, is answered otherwise.
function differing(
  input: Record<string, JsonSchema>,
  output: Record<string, JsonSchema>,
): (name: string) => string {
  const other = new Set(
    Object.keys(input).filter(
      (name) => output[name] && JSON.stringify(input[name]) !== JSON.stringify(output[name]),
    ),
  );
  for (let before = -1; before !== other.size;) {
    before = other.size;
    for (const [name, schema] of Object.entries(input))
      if (output[name] && refsOf(schema).some((one) => other.has(one))) other.add(name);
  }
  return (name) => (other.has(name) ? `${name}Input` : name);
}

/** The names of the shapes that a schema refers to. */
export function refsOf(schema: unknown): string[] {
  return [...JSON.stringify(schema).matchAll(/"\$ref":"#\/components\/schemas\/([^"]+)"/g)].map(
    ([, name]) => name!,
  );
}

function withRefs(schema: JsonSchema, renamed: (name: string) => string): JsonSchema {
  return JSON.parse(
    JSON.stringify(schema).replace(
      /("\$ref":"#\/components\/schemas\/)([^"]+)"/g,
      (_, start: string, name: string) => `${start}${renamed(name)}"`,
    ),
  ) as JsonSchema;
}

// Those that a call has, and what they refer to, by name.
function reachable(all: Record<string, JsonSchema>, roots: readonly string[]): Record<string, JsonSchema> {
  const names = new Set<string>();
  const add = (name: string): void => {
    if (names.has(name)) return;
    names.add(name);
    refsOf(all[name]).forEach(add);
  };
  roots.forEach(add);
  return Object.fromEntries([...names].sort().map((name) => [name, all[name]!]));
}

function addCurrent(schema: JsonSchema): void {
  schema.properties = {
    ...(schema.properties as object),
    current: {
      type: "boolean",
      description: "Whether what was changed last is in it; “Prefer: wait=SECONDS” waits longer for that.",
    },
  };
}

function capital(name: string): string {
  return name.charAt(0).toUpperCase() + name.slice(1);
}
