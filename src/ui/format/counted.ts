import { count } from "./format.ts";

/**
 * A number with what is counted, in the form that the number asks for: 1 page, 2 pages. The words of the workspace are
 * English, whatever the site's language.
 */
export function counted(number: number, one: string, other: string): string {
  return `${count(number)} ${number === 1 ? one : other}`;
}
