import { count } from "./format.ts";

// The words of the workspace are English, whatever the site's language.
const FORMS = new Intl.PluralRules("en");

/** A number with what is counted, in the form that the number asks for: 1 page, 2 pages. */
export function counted(number: number, one: string, other: string): string {
  return `${count(number)} ${FORMS.select(number) === "one" ? one : other}`;
}
