import { escapeText } from "entities/escape";

/** Names and values that a site's texts and addresses are filled from. */
export type Variables = Readonly<Record<string, string>>;

const NAME = "[a-z][a-z0-9_-]{0,59}";
// In an address that was repaired the braces may have been percent-encoded.
const PLACE = new RegExp(`(?:\\{\\{|%7B%7B)\\s{0,20}(${NAME})\\s{0,20}(?:\\}\\}|%7D%7D)`, "gi");

/** Puts values in the place of `{{name}}` in HTML, in text and attributes alike; a name that is not known stays. */
export function fillVariables(html: string, variables: Variables): string {
  return html.replace(PLACE, (whole, name: string) => {
    const value = variables[name.toLowerCase()];
    return value === undefined ? whole : escapeText(value).replaceAll('"', "&quot;");
  });
}

/** The same for one address, which is no HTML. */
export function fillAddress(address: string, variables: Variables): string {
  return address.replace(PLACE, (whole, name: string) => variables[name.toLowerCase()] ?? whole);
}

/** The names of `{{…}}` places in a text, each once. */
export function variableNames(text: string): string[] {
  return [...new Set([...text.matchAll(PLACE)].map(([, name]) => name!.toLowerCase()))];
}

// What partners put into their snippets where the publisher's own account belongs.
const PLACEHOLDER =
  /\{\{([\w .-]{2,60})\}\}|%%([\w .-]{2,60})%%|\[([A-Z][A-Z0-9_ -]{2,38}[A-Z0-9])\]|\{([A-Za-z][\w-]{1,40})\}|<<([\w .-]{2,60})>>|\b((?:YOUR|MY)[A-Z0-9_-]{0,60})\b/g;

const OURS = /(?:ID|NAME|ACCOUNT|TAG|CODE|KEY)$/;

/** A place in a partner's snippet that waits for something of ours. */
export interface Placeholder {
  /** As it stands in the snippet. */
  text: string;
  /** The site variable that it is filled from; undefined when none has such a name. */
  variable: string | undefined;
}

/** Finds placeholders in a partner's snippet, and the site variable that each means. */
export function findPlaceholders(snippet: string, variables: Variables): Placeholder[] {
  const found = new Map<string, Placeholder>();
  for (const match of snippet.matchAll(PLACEHOLDER)) {
    const inner = match
      .slice(1)
      .find((group) => group !== undefined)!
      .trim();
    if (match[6] !== undefined && !OURS.test(match[6])) continue;
    found.set(match[0], { text: match[0], variable: variableFor(inner, Object.keys(variables)) });
  }
  return [...found.values()];
}

/** Turns the placeholders that are known into `{{name}}` places. */
export function adoptPlaceholders(snippet: string, placeholders: readonly Placeholder[]): string {
  return placeholders.reduce(
    (text, { text: place, variable }) => (variable ? text.replaceAll(place, `{{${variable}}}`) : text),
    snippet,
  );
}

// YOUR_ACCOUNT_ID, account-id and AccountId are one name.
function variableFor(inner: string, names: readonly string[]): string | undefined {
  const plain = (text: string): string =>
    text
      .toLowerCase()
      .replace(/[^a-z0-9]/g, "")
      .replace(/^(?:your|my|insert|enter)/, "");
  const wanted = plain(inner);
  if (wanted === "") return undefined;
  return (
    names.find((name) => plain(name) === wanted) ??
    names.find((name) => plain(name) === wanted.replace(/(?:id|name|code)$/, "")) ??
    names.find(
      (name) => plain(name).replace(/(?:id|name|code)$/, "") === wanted.replace(/(?:id|name|code)$/, ""),
    )
  );
}
