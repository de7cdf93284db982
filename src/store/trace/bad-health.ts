import { BAD_HEALTH } from "../../core/routes/choices.ts";

/** The SQL that a column holds a verdict with which readers do not arrive; null is none. */
export function badHealth(column: string): string {
  return `${column} IN (${BAD_HEALTH.map((verdict) => `'${verdict}'`).join(", ")})`;
}
