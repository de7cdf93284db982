import { programInputSchema, type Program, type ProgramInput } from "../../../core/programs/program.ts";

/** A program as it is typed: every field as text, save for what is switched. */
export interface TypedProgram {
  text: Record<string, string>;
  needsReferrer: boolean;
  linksLeft: boolean;
}

const EMPTY = programInputSchema.parse({ name: "New", domains: ["new.example"] });

/** A program's fields as text; those of a new one as they begin. */
export function typedOf(program: Program | undefined): TypedProgram {
  const { needsReferrer, linksLeft, domains, reportNames, tags, epc, ...rest } = program ?? {
    ...EMPTY,
    name: "",
    domains: [],
  };
  const text: Record<string, string> = {
    domains: domains.join("\n"),
    reportNames: reportNames.join("\n"),
    tags: tags.join(", "),
    epc7: epc.d7 ?? "",
    epc30: epc.d30 ?? "",
    epc90: epc.d90 ?? "",
  };
  for (const name of Object.keys(EMPTY)) {
    const value = rest[name as keyof typeof rest] as string | number | null | undefined;
    if (!(name in text) && name !== "epc" && !SWITCHES.has(name))
      text[name] = value === null || value === undefined ? "" : String(value);
  }
  return { text, needsReferrer, linksLeft };
}

const SWITCHES: ReadonlySet<string> = new Set(["needsReferrer", "linksLeft"]);
const NUMBERS: ReadonlySet<string> = new Set(["subIdLimit", "cookieDays", "payoutDay"]);
const MAY_BE_NULL: ReadonlySet<string> = new Set([
  "payoutThreshold",
  "payoutDay",
  "paidUntil",
  "termsReview",
  "nextStepDue",
]);

/** What was typed as the program it means, or the message at each field. */
export function programOf({ text, needsReferrer, linksLeft }: TypedProgram): {
  value?: ProgramInput;
  errors: Record<string, string>;
} {
  const { epc7, epc30, epc90, domains = "", reportNames = "", tags = "", ...rest } = text;
  const list = (typed: string, sign: RegExp): string[] =>
    typed
      .split(sign)
      .map((one) => one.trim())
      .filter(Boolean);
  const plain = Object.fromEntries(
    Object.entries(rest).map(([name, typed]) => {
      if (typed.trim() === "" && MAY_BE_NULL.has(name)) return [name, null];
      return [name, NUMBERS.has(name) ? Number(typed) : typed];
    }),
  );
  const checked = programInputSchema.safeParse({
    ...plain,
    needsReferrer,
    linksLeft,
    domains: list(domains, /[\n,\s]+/),
    reportNames: list(reportNames, /\n/),
    tags: list(tags, /,/),
    epc: { d7: epc7?.trim() || null, d30: epc30?.trim() || null, d90: epc90?.trim() || null },
  });
  if (checked.success) return { value: checked.data, errors: {} };
  return {
    errors: errorsByField(
      checked.error.issues.map(({ path, message }) => ({ path: path.join("."), message })),
    ),
  };
}

/** Messages by the field of the form that they belong to, the first of each. */
export function errorsByField(errors: readonly { path: string; message: string }[]): Record<string, string> {
  const byField: Record<string, string> = {};
  for (const { path, message } of errors) {
    const [first = "", second = ""] = path.split(".");
    byField[first === "epc" ? second.replace("d", "epc") : first] ??= message;
  }
  return byField;
}
