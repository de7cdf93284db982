import type { FieldErrors, Resolver } from "react-hook-form";
import { entriesOf } from "../../../ui/choose/options.ts";
import { programInputSchema, type Program, type ProgramInput } from "../../../core/programs/program.ts";
import * as say from "../words.ts";

/** A program as it is typed: every field as text, save for lists and what is switched. */
export interface TypedProgram {
  text: Record<string, string>;
  domains: string[];
  tags: string[];
  needsReferrer: boolean;
  tracksOnTheWay: boolean;
  linksLeft: boolean;
}

const EMPTY = programInputSchema.parse({ name: say.newWord, domains: ["new.example"] });

/** A program's fields as text; those of a new one as they begin. */
export function typedOf(program: Program | undefined): TypedProgram {
  const { needsReferrer, tracksOnTheWay, linksLeft, domains, reportNames, tags, epc, ...rest } = program ?? {
    ...EMPTY,
    name: "",
    domains: [],
  };
  const text: Record<string, string> = {
    reportNames: reportNames.join("\n"),
    epc7: epc.d7 ?? "",
    epc30: epc.d30 ?? "",
    epc90: epc.d90 ?? "",
  };
  for (const name of Object.keys(EMPTY)) {
    const value = rest[name as keyof typeof rest] as string | number | null | undefined;
    if (!(name in text) && name !== "epc" && !OWN_FIELDS.has(name))
      text[name] = value === null || value === undefined ? "" : String(value);
  }
  return { text, domains, tags, needsReferrer, tracksOnTheWay, linksLeft };
}

// What is no text, and a field of its own.
const OWN_FIELDS: ReadonlySet<string> = new Set([
  "domains",
  "tags",
  "needsReferrer",
  "tracksOnTheWay",
  "linksLeft",
]);
const NUMBERS: ReadonlySet<string> = new Set(["subIdLimit", "cookieDays", "payoutDay"]);
const MAY_BE_NULL: ReadonlySet<string> = new Set([
  "payoutThreshold",
  "payoutDay",
  "paidUntil",
  "termsReview",
  "nextStepDue",
]);

/** What was typed as the program it means, or the message at each field. */
export function programOf({ text, ...own }: TypedProgram): {
  value?: ProgramInput;
  errors: Record<string, string>;
} {
  const { epc7, epc30, epc90, reportNames = "", ...rest } = text;
  const plain = Object.fromEntries(
    Object.entries(rest).map(([name, typed]) => {
      if (typed.trim() === "" && MAY_BE_NULL.has(name)) return [name, null];
      return [name, NUMBERS.has(name) ? Number(typed) : typed];
    }),
  );
  const checked = programInputSchema.safeParse({
    ...plain,
    ...own,
    reportNames: entriesOf(reportNames, /\n/),
    epc: { d7: epc7?.trim() || null, d30: epc30?.trim() || null, d90: epc90?.trim() || null },
  });
  if (checked.success) return { value: checked.data, errors: {} };
  return {
    errors: errorsByField(
      checked.error.issues.map(({ path, message }) => ({ path: path.join("."), message })),
    ),
  };
}

/** The form's field of what the API names by a path of its own. */
export function fieldOfProgram(path: string): string {
  const name = nameOf(path);
  return OWN_FIELDS.has(name) ? name : `text.${name}`;
}

/** Tells the form what is wrong with what is typed, at its fields. */
export const programResolver: Resolver<TypedProgram> = (typed) => {
  const { value, errors } = programOf(typed);
  if (value) return { values: typed, errors: {} };
  const all = Object.entries(errors).map(([name, message]) => [name, { type: "schema", message }] as const);
  const text = Object.fromEntries(all.filter(([name]) => !OWN_FIELDS.has(name)));
  const own = Object.fromEntries(all.filter(([name]) => OWN_FIELDS.has(name)));
  return { values: {}, errors: { ...own, text } as FieldErrors<TypedProgram> };
};

/** Messages by the field of the form that they belong to, the first of each. */
function errorsByField(errors: readonly { path: string; message: string }[]): Record<string, string> {
  const byField: Record<string, string> = {};
  for (const { path, message } of errors) byField[nameOf(path)] ??= message;
  return byField;
}

function nameOf(path: string): string {
  const [first = "", second = ""] = path.split(".");
  return first === "epc" ? second.replace("d", "epc") : first;
}
