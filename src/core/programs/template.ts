import { decoded } from "../text/decoded.ts";

/** What a program fills into its link template: the account, the label of the placement, the page that is linked. */
export type Placeholder = "id" | "sub" | "destination";

/** A segment of a path or a parameter's value: literal text, or one placeholder with literal text around it. */
export type Piece = string | { before: string; holds: Placeholder; after: string };

/** How a program's links are built, taken apart. */
export type LinkTemplate =
  | {
      /** The link goes to a host of the network's, which sends the reader on. */
      style: "wrapper";
      text: string;
      /** Lower-case, with the port where there is one. */
      host: string;
      path: readonly Piece[];
      parameters: readonly (readonly [name: string, value: Piece])[];
    }
  | {
      /** The link goes to the page itself, with parameters behind it. */
      style: "parameters";
      text: string;
      parameters: readonly (readonly [name: string, value: Piece])[];
    };

export type ReadTemplate = { ok: true; template: LinkTemplate } | { ok: false; reason: string };

const PLACEHOLDER = /\{([^{}]*)\}/g;
const KNOWN: readonly string[] = ["id", "sub", "destination"] satisfies Placeholder[];
const ONTO = "{destination}";

/**
 * Reads a link template: an address with `{id}`, `{destination}` and perhaps `{sub}` in its path or query, or
 * `{destination}?…` for programs whose parameters stand behind the page's own address. Nothing that is filled in can
 * choose the host.
 */
export function readTemplate(typed: string): ReadTemplate {
  const text = typed.trim();
  const fault = placeholderFault(text);
  if (fault) return { ok: false, reason: fault };
  return text.startsWith(ONTO) ? readOnto(text) : readAround(text);
}

function placeholderFault(text: string): string | undefined {
  if (text === "") return "The template is empty.";
  const names = [...text.matchAll(PLACEHOLDER)].map(([, name]) => name!);
  const unknown = names.find((name) => !KNOWN.includes(name));
  if (unknown !== undefined)
    return `“{${unknown}}” is no placeholder; {id}, {sub} and {destination} are filled in.`;
  if (/[{}]/.test(text.replace(PLACEHOLDER, "")))
    return "A brace stands alone; placeholders are written {id}.";
  if (!names.includes("destination"))
    return "The template has no {destination}: every link built from it would lead to the same page.";
  if (!names.includes("id"))
    return "The template has no {id}: nobody would know that the reader came from you.";
  const twice = names.find((name, at) => names.indexOf(name) !== at);
  if (twice) return `{${twice}} stands in the template twice.`;
  return undefined;
}

function readOnto(text: string): ReadTemplate {
  const behind = text.slice(ONTO.length);
  if (!/^[?&]/.test(behind) || behind.includes("#"))
    return { ok: false, reason: "Behind {destination} stand parameters, as in {destination}?partner={id}." };
  const parameters = readParameters(behind.slice(1));
  return typeof parameters === "string"
    ? { ok: false, reason: parameters }
    : { ok: true, template: { style: "parameters", text, parameters } };
}

function readAround(text: string): ReadTemplate {
  const start = /^https?:\/\/([^/?#{}@\\]+)(?=[/?])/i.exec(text);
  if (!start || !URL.canParse(`${start[0]}/`)) {
    const reason = /^https?:\/\/[^/?#]*[{@]/i.test(text)
      ? "The host is fixed: placeholders stand behind it, in the path or the query."
      : "A template is a web address with its host, such as https://go.network.example/c/{id}?to={destination}, or begins with {destination}.";
    return { ok: false, reason };
  }
  if (text.includes("#"))
    return { ok: false, reason: "What stands behind # is never sent; the template ends before it." };
  const rest = text.slice(start[0].length);
  const mark = rest.indexOf("?");
  const pathText = mark === -1 ? rest : rest.slice(0, mark);
  const path: Piece[] = [];
  for (const segment of pathText === "" ? [] : pathText.slice(1).split("/")) {
    const piece = readPiece(segment);
    if (piece === undefined) return { ok: false, reason: ONE_EACH };
    path.push(piece);
  }
  const parameters = mark === -1 ? [] : readParameters(rest.slice(mark + 1));
  if (typeof parameters === "string") return { ok: false, reason: parameters };
  return {
    ok: true,
    template: { style: "wrapper", text, host: new URL(`${start[0]}/`).host, path, parameters },
  };
}

const ONE_EACH = "Each part between slashes, and each parameter, holds at most one placeholder.";

function readParameters(query: string): [string, Piece][] | string {
  const parameters: [string, Piece][] = [];
  for (const part of query.split("&").filter(Boolean)) {
    const equals = part.indexOf("=");
    const name = equals === -1 ? part : part.slice(0, equals);
    if (name.includes("{")) return "A parameter's name is fixed; placeholders stand behind its =.";
    if (parameters.some(([known]) => known === decoded(name)))
      return `The parameter “${name}” stands there twice.`;
    const piece = readPiece(equals === -1 ? "" : part.slice(equals + 1));
    if (piece === undefined) return ONE_EACH;
    parameters.push([decoded(name), piece]);
  }
  return parameters;
}

function readPiece(text: string): Piece | undefined {
  const found = [...text.matchAll(PLACEHOLDER)];
  if (found.length === 0) return decoded(text);
  if (found.length > 1) return undefined;
  const [whole, name] = found[0]!;
  const at = found[0]!.index;
  const before = decoded(text.slice(0, at));
  return { before, holds: name as Placeholder, after: decoded(text.slice(at + whole.length)) };
}

/** Percent-encodes a value so that it is the same in a path, in a query and after a URL parser (RFC 3986 section 2.3). */
export function encoded(value: string): string {
  return encodeURIComponent(value).replace(
    /[!'()*]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );
}

/** The names of the parameters that belong to the program: an address that has them is tracked already. */
export function ownParameters(template: LinkTemplate): string[] {
  return template.parameters.map(([name]) => name);
}
