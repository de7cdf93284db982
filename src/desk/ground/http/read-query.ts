import { z } from "zod";
import { fieldErrors, notFound, Problem } from "../problem.ts";

/** Reads the parameters of a path by their schema; throws a 404 that names what does not exist. */
export function readParameters(
  schema: z.ZodObject<Record<string, z.ZodType<string>>>,
  given: Readonly<Record<string, string | undefined>>,
): Record<string, string> {
  const read = schema.safeParse(given);
  if (read.success) return read.data;
  const name = String(read.error.issues[0]!.path[0]);
  const value = `“${given[name]}”`;
  throw notFound(name === "site" ? `The site ${value}` : `What the address names as ${name} (${value})`);
}

/** Reads a query by its schema; throws a 400 that names each parameter that is not as documented, unknown ones too. */
export function readQuery(schema: z.ZodType | undefined, parameters: URLSearchParams): unknown {
  const known: ReadonlySet<string> = new Set(schema instanceof z.ZodObject ? Object.keys(schema.shape) : []);
  const given = [...parameters.keys()];
  const errors = [...new Set(given)].flatMap((name) => {
    if (!known.has(name)) return { path: name, message: `There is no parameter “${name}” here.` };
    const times = given.filter((one) => one === name).length;
    return times > 1 ? { path: name, message: `${name} is given ${times} times; once is meant.` } : [];
  });
  if (errors.length > 0) throw notAsDocumented(errors);
  if (!schema) return undefined;
  const read = schema.safeParse(Object.fromEntries(parameters));
  if (read.success) return read.data;
  throw notAsDocumented(fieldErrors(read.error));
}

/** What is to be said of a request that is not as documented: a 400 with each name that is meant. */
export function notAsDocumented(errors: { path: string; message: string }[]): Problem {
  return new Problem(400, "This cannot be taken as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}
