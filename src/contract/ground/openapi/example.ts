import type { JsonSchema } from "./components.ts";

type Schemas = Readonly<Record<string, JsonSchema>>;

/** What fields hold in examples, by their names; a value that its schema does not take is passed over. */
const USUAL: Readonly<Record<string, readonly unknown[]>> = {
  name: ["Harbour Optics", "lowlantern.localhost", "moon.webp"],
  title: ["Frames for the moon"],
  address: ["/to/moon-frame", "https://harbour-optics.example/frames"],
  url: ["https://lowlantern.example/to/moon-frame"],
  path: ["/reviews/frames-for-the-moon"],
  page: ["/reviews/frames-for-the-moon"],
  href: ["https://harbour-optics.example/frames"],
  destination: ["https://harbour-optics.example/frames"],
  destinationUrl: ["https://harbour-optics.example/frames"],
  html: ['<p>See <a href="https://harbour-optics.example/frames">the frames</a>.</p>'],
  text: ["See the frames."],
  message: ["The destination does not answer."],
  category: ["Reviews"],
  key: ["low-lantern"],
  mail: ["mara@lowlantern.example"],
  site: ["low-lantern"],
  host: ["lowlantern.example"],
  hosts: [["lowlantern.example"]],
  network: ["Wickline"],
  program: ["4"],
  aliases: [["/to/frames"]],
  status: [302, "302"],
  tag: ["autumn"],
  tags: [["autumn"]],
  language: ["en-GB"],
  timeZone: ["Europe/London"],
  country: ["GB"],
  currency: ["GBP"],
  anchor: ["the frames", "text"],
  words: ["the frames"],
  shortPrefix: ["/to/"],
  updatedBy: ["Mara Quill"],
  createdBy: ["Mara Quill"],
  by: ["Mara Quill"],
  person: ["Mara Quill"],
  actor: ["Mara Quill"],
  from: ["2026-11-01"],
  to: ["2026-11-30"],
  day: ["2026-11-30"],
  version: [3, "3"],
  id: ["17"],
  ids: [["17", "18"]],
  entry: ["2041"],
  revision: ["88"],
  item: ["route-17"],
  q: ["frames"],
  type: ["about:blank"],
  password: ["nine quiet ponds at dusk"],
  current: ["nine quiet ponds at dusk"],
  next: ["ten loud rivers at dawn"],
  code: ["123456"],
  find: ["http://"],
  replace: ["https://"],
};
const FORMATS: Readonly<Record<string, unknown>> = {
  "date-time": "2026-11-30T18:04:05.000Z",
  date: "2026-11-30",
  uuid: "0d3f6a52-6a0e-4c53-9a4c-2f4c7f1c1c11",
  email: "mara@lowlantern.example",
  uri: "https://harbour-optics.example/frames",
};
const DEEPEST = 12;
/** What a text may be that no name tells of: the first that has its form. */
const TEXTS = ["text", ...Object.values(USUAL).flat(), "#8A4B08", "t".repeat(24)].filter(
  (value) => typeof value === "string",
);

/** An example of what a schema describes: what it must have, and what is told of its other fields. `name`: of the field. */
export function exampleOf(schema: JsonSchema, schemas: Schemas, name = "", depth = 0): unknown {
  const target = resolved(schema, schemas);
  if (Array.isArray(target.examples)) return target.examples[0];
  if ("const" in target) return target.const;
  if (Array.isArray(target.enum)) return target.enum[0];
  const usual = usualOf(name).find((value) => fits(value, target, schemas));
  if (usual !== undefined) return usual;
  if (takesNull(target)) return null;
  if ("default" in target) return target.default;
  const choices = (target.oneOf ?? target.anyOf) as JsonSchema[] | undefined;
  if (choices) return exampleOf(choices[0]!, schemas, name, depth);
  return ofType(target, schemas, name, depth);
}

function usualOf(name: string): readonly unknown[] {
  return USUAL[name] ?? (/(?:At|From|Until|Seen)$/.test(name) ? [FORMATS["date-time"]] : []);
}

function takesNull({ type, anyOf }: JsonSchema): boolean {
  return [type, ...((anyOf ?? []) as JsonSchema[]).map((one) => one.type)].flat().includes("null");
}

function ofType(schema: JsonSchema, schemas: Schemas, name: string, depth: number): unknown {
  switch (typeOf(schema)) {
    case "object":
      return objectExample(schema, schemas, depth);
    case "array":
      return arrayExample(schema, schemas, name, depth);
    case "integer":
    case "number":
      return Math.max(Number(schema.minimum ?? 0), Number(schema.exclusiveMinimum ?? -1) + 1, 1);
    case "boolean":
      return false;
    case "string":
      return FORMATS[String(schema.format)] ?? TEXTS.find((text) => fits(text, schema, schemas)) ?? "";
    default:
      return null;
  }
}

// A list that may be empty, deep inside, is: nothing is said by it.
function arrayExample(schema: JsonSchema, schemas: Schemas, name: string, depth: number): unknown[] {
  const least = Number(schema.minItems ?? 0);
  if (depth > DEEPEST / 2 && least === 0) return [];
  const item = exampleOf((schema.items ?? {}) as JsonSchema, schemas, name.replace(/s$/, ""), depth + 1);
  return Array.from({ length: Math.max(1, least) }, () => item);
}

function objectExample(schema: JsonSchema, schemas: Schemas, depth: number): Record<string, unknown> {
  const required = new Set((schema.required ?? []) as string[]);
  const properties = Object.entries((schema.properties ?? {}) as Record<string, JsonSchema>);
  const shown = properties.filter(([field]) => required.has(field) || (depth < 2 && field in USUAL));
  return Object.fromEntries(
    shown.map(([field, property]) => [field, exampleOf(property, schemas, field, depth + 1)]),
  );
}

function resolved(schema: JsonSchema, schemas: Schemas): JsonSchema {
  const name = typeof schema.$ref === "string" ? schema.$ref.split("/").at(-1)! : undefined;
  return name === undefined ? schema : resolved(schemas[name] ?? {}, schemas);
}

function typeOf({ type, properties }: JsonSchema): unknown {
  if (type === undefined && properties) return "object";
  return Array.isArray(type) ? type.find((one) => one !== "null") : type;
}

// As far as examples need it: type, choices, length, form.
function fits(value: unknown, schema: JsonSchema, schemas: Schemas): boolean {
  const choices = (schema.anyOf ?? schema.oneOf) as JsonSchema[] | undefined;
  if (choices) return choices.some((one) => fits(value, resolved(one, schemas), schemas));
  if (Array.isArray(schema.enum)) return schema.enum.includes(value);
  const type = typeOf(schema);
  if (Array.isArray(value))
    return (
      type === "array" &&
      value.every((one) => fits(one, resolved((schema.items ?? {}) as JsonSchema, schemas), schemas))
    );
  if (typeof value === "number")
    return (type === "integer" || type === "number") && value >= Number(schema.minimum ?? value);
  if (typeof value !== "string" || (type !== undefined && type !== "string")) return false;
  if (schema.format !== undefined && !(schema.format === "date" && /^[\d-]{10}$/.test(value))) return false;
  if (typeof schema.pattern === "string" && !new RegExp(schema.pattern, "u").test(value)) return false;
  return (
    value.length >= Number(schema.minLength ?? 0) && value.length <= Number(schema.maxLength ?? Infinity)
  );
}
