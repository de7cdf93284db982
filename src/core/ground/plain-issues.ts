import { inFigures } from "../text/in-figures.ts";
import { z } from "zod";

const KINDS: Readonly<Record<string, string>> = {
  string: "text",
  number: "a number",
  int: "a whole number",
  boolean: "true or false",
  array: "a list",
  object: "an object with fields",
  record: "an object with fields",
  null: "null",
  date: "a date",
};

/**
 * What is wrong with a value, in a sentence that names its field: for schemas that say nothing themselves. Undefined for
 * what only the library itself can tell.
 */
export function plainIssue(issue: z.core.$ZodRawIssue): string | undefined {
  const name = nameOf(issue.path);
  switch (issue.code) {
    case "invalid_type":
      return issue.input === undefined
        ? `${name} is missing.`
        : `${name} is ${KINDS[issue.expected] ?? issue.expected}.`;
    case "invalid_value":
      return issue.input === undefined ? `${name} is missing.` : `${name} is ${oneOf(issue.values)}.`;
    case "too_small":
      return `${name} ${bound(issue.origin, "least", Number(issue.minimum), issue.inclusive !== false)}.`;
    case "too_big":
      return `${name} ${bound(issue.origin, "most", Number(issue.maximum), issue.inclusive !== false)}.`;
    case "not_multiple_of":
      return `${name} is a multiple of ${issue.divisor}.`;
    case "invalid_format":
    case "invalid_key":
      return `${name} does not have the form that it must have.`;
    case "invalid_union":
    case "invalid_element":
      return `${name} has none of the forms that it may have.`;
    default:
      return undefined;
  }
}

function nameOf(path: readonly PropertyKey[] | undefined): string {
  const names = (path ?? []).filter((one) => typeof one === "string");
  return names.length === 0 ? "This" : String(names.at(-1));
}

function oneOf(values: readonly unknown[]): string {
  const [first, ...others] = values.map(String);
  return others.length === 0 ? first! : `one of ${[first, ...others].join(", ")}`;
}

function bound(origin: string, end: "least" | "most", limit: number, isInclusive: boolean): string {
  const count = inFigures(limit);
  if (origin === "string") return `has at ${end} ${count} characters`;
  if (origin === "array" || origin === "set") return `has at ${end} ${count} entries`;
  if (isInclusive) return `is at ${end} ${count}`;
  return end === "least" ? `is more than ${count}` : `is less than ${count}`;
}

z.config({ customError: plainIssue });
