/** A JSON Schema, as far as the reference shows it. */
import * as say from "../words.ts";
export interface Shape {
  $ref?: string;
  type?: string | string[];
  description?: string;
  enum?: unknown[];
  const?: unknown;
  default?: unknown;
  format?: string;
  minimum?: number;
  maximum?: number;
  minLength?: number;
  maxLength?: number;
  maxItems?: number;
  items?: Shape;
  properties?: Record<string, Shape>;
  required?: string[];
  additionalProperties?: Shape | boolean;
  anyOf?: Shape[];
  oneOf?: Shape[];
  allOf?: Shape[];
}

/** A parameter of an operation. */
export interface Parameter {
  name: string;
  in: "path" | "query" | "header";
  description: string;
  required: boolean;
  schema: Shape;
  example?: unknown;
}

interface Content {
  schema: Shape;
  example?: unknown;
}

/** A call, as the API's document tells it. */
export interface Operation {
  operationId: string;
  tags: string[];
  summary: string;
  description: string;
  parameters?: Parameter[];
  requestBody?: { content: Record<string, Content> };
  responses: Record<string, { $ref?: string; description?: string; content?: Record<string, Content> }>;
}

/** The API's document. */
export interface ApiDocument {
  tags: { name: string; description: string }[];
  paths: Record<string, Record<string, Operation>>;
  components: {
    schemas: Record<string, Shape>;
    responses: Record<string, { description: string }>;
  };
}

/** A call with its method and path. */
export interface Call extends Operation {
  method: string;
  path: string;
}

/** The calls of a subject, in the order of the document. */
export function callsOf({ paths }: ApiDocument, subject: string): Call[] {
  return Object.entries(paths).flatMap(([path, methods]) =>
    Object.entries(methods)
      .filter(([, { tags }]) => tags.includes(subject))
      .map(([method, operation]) => ({ method: method.toUpperCase(), path, ...operation })),
  );
}

/** The name of the shape that another refers to. */
export function nameOf({ $ref }: Shape): string | undefined {
  return $ref?.split("/").at(-1);
}

/** What a value may be, in a few words. */
export function typeWords(shape: Shape): string {
  const name = nameOf(shape);
  if (name) return name;
  if (shape.const !== undefined) return JSON.stringify(shape.const);
  if (shape.enum) return shape.enum.map((one) => JSON.stringify(one)).join(" | ");
  const choices = shape.anyOf ?? shape.oneOf;
  if (choices) return choices.map(typeWords).join(" | ");
  if (shape.allOf) return shape.allOf.map(typeWords).join(" & ");
  const types = [shape.type ?? "any"].flat();
  return types
    .map((type) => (type === "array" ? say.listOf2(typeWords(shape.items ?? {})) : typeWord(type, shape)))
    .join(" | ");
}

function typeWord(type: string, { format, properties, additionalProperties }: Shape): string {
  if (type === "string" && format) return format;
  if (type === "object" && !properties && typeof additionalProperties === "object")
    return say.objectOf(typeWords(additionalProperties));
  return type;
}

/** The bounds of a value, in words; empty where it has none. */
export function boundWords({
  minimum,
  maximum,
  minLength,
  maxLength,
  maxItems,
  default: usual,
}: Shape): string {
  return [
    minimum !== undefined && say.from(minimum),
    maximum !== undefined && say.to(maximum),
    minLength && say.atLeastCharacters(minLength),
    maxLength && say.atMostCharacters(maxLength),
    maxItems && say.atMost(maxItems),
    usual !== undefined && say.unlessSaidOtherwise(JSON.stringify(usual)),
  ]
    .filter(Boolean)
    .join(", ");
}

/** The fields that a value has, wherever they stand: in itself, in the items of a list, in one of its choices. */
export function fieldsOf(shape: Shape): { name: string; shape: Shape; isRequired: boolean }[] {
  const own = Object.entries(shape.properties ?? {}).map(([name, one]) => ({
    name,
    shape: one,
    isRequired: shape.required?.includes(name) ?? false,
  }));
  const inside = [shape.items, ...(shape.anyOf ?? []), ...(shape.oneOf ?? []), ...(shape.allOf ?? [])];
  const extra = typeof shape.additionalProperties === "object" ? [shape.additionalProperties] : [];
  const found = [...own, ...[...inside, ...extra].flatMap((one) => (one ? fieldsOf(one) : []))];
  return found.filter(({ name }, at) => found.findIndex((one) => one.name === name) === at);
}

/** The named shapes that some shapes refer to, each once, and those that these refer to. */
export function shapesOf(roots: readonly Shape[], schemas: ApiDocument["components"]["schemas"]): string[] {
  const names = new Set<string>();
  const walk = (value: unknown): void => {
    if (typeof value !== "object" || value === null) return;
    const name = nameOf(value as Shape);
    if (typeof name === "string" && schemas[name] && !names.has(name)) {
      names.add(name);
      walk(schemas[name]);
    }
    Object.values(value).forEach(walk);
  };
  roots.forEach(walk);
  return [...names].sort();
}
