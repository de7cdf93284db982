import { z } from "zod";
import { id } from "../../core/objects/fields.ts";
import { fieldErrors, notFound, Problem } from "../problem.ts";

const number = z.string().regex(/^\d{1,9}$/);
/** What each parameter of a path is; a path that holds something else names nothing. */
const PARAMETERS: Readonly<Record<string, z.ZodType>> = {
  site: z.string().regex(/^[a-z\d][a-z\d-]{0,59}$/),
  id,
  revision: id,
  version: number,
  job: z.uuid(),
};

/** Checks the parameters of a path; throws a 404 that names what does not exist. */
export function checkParameters(params: Readonly<Record<string, string | undefined>>): void {
  for (const [name, value] of Object.entries(params)) {
    const schema = PARAMETERS[name];
    if (schema?.safeParse(value).success !== true)
      throw notFound(
        name === "site" ? `The site “${value}”` : `What the address names as ${name} (“${value}”)`,
      );
  }
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

function notAsDocumented(errors: { path: string; message: string }[]): Problem {
  return new Problem(400, "This cannot be taken as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}
