import type { FieldValues, Resolver } from "react-hook-form";
import type { ZodType } from "zod";

/**
 * Checks a form with a schema that is fetched when it is first checked: its screen is drawn without it. Where it cannot be
 * fetched, the server alone says what is wrong.
 */
export function schemaLater<V extends FieldValues>(fetch: () => Promise<ZodType<unknown, V>>): Resolver<V> {
  let ready: Resolver<V> | undefined;
  return async (values, context, options) => {
    try {
      ready ??= await resolverOf(fetch);
    } catch {
      return { values, errors: {} };
    }
    return ready(values, context, options);
  };
}

async function resolverOf<V extends FieldValues>(
  fetch: () => Promise<ZodType<unknown, V>>,
): Promise<Resolver<V>> {
  const [{ zodResolver }, schema] = await Promise.all([import("@hookform/resolvers/zod"), fetch()]);
  return zodResolver(schema) as Resolver<V>;
}
