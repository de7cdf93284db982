/** An error of the API's problem document: where, as a dotted path of what was sent, and what is wrong. */
export interface ApiError {
  path: string;
  message: string;
}

/** The errors of a problem as a form shows them. */
export interface PlacedErrors {
  /** By field, the first that is said of each. */
  atFields: { name: string; message: string }[];
  /** What is said of nothing that the form has. */
  elsewhere: string[];
}

/**
 * Places the errors of a problem at a form's fields: at the field of that path, or of the nearest part around it.
 * `fieldOf` says where the form keeps what the API names otherwise.
 */
export function placeErrors(
  errors: readonly ApiError[],
  fields: readonly string[],
  fieldOf: (path: string) => string = (path) => path,
): PlacedErrors {
  const placed: PlacedErrors = { atFields: [], elsewhere: [] };
  for (const { path, message } of errors) {
    const name = nearest(fieldOf(path), fields);
    if (name === undefined) placed.elsewhere.push(message);
    else if (!placed.atFields.some((one) => one.name === name)) placed.atFields.push({ name, message });
  }
  return placed;
}

/** The names of a form's fields, those within objects by their dotted paths; a list is a field of its own. */
export function fieldNames(values: object, within = ""): string[] {
  return Object.entries(values).flatMap(([key, value]: [string, unknown]) => {
    const name = within + key;
    const isGroup = typeof value === "object" && value !== null && !Array.isArray(value);
    return isGroup ? [name, ...fieldNames(value, `${name}.`)] : [name];
  });
}

function nearest(path: string, fields: readonly string[]): string | undefined {
  for (let at = path; at !== ""; at = at.slice(0, Math.max(0, at.lastIndexOf("."))))
    if (fields.includes(at)) return at;
  return undefined;
}
