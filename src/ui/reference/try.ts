import type { Call } from "./document.ts";

/** What somebody filled in to try a call. */
export interface Tried {
  /** The parameters of path and query, by name; an empty one is not sent. */
  values: Record<string, string>;
  body: string;
}

/** The request that a call is, with what was filled in: its address below the host, and the rest. */
export function requestOf(
  {
    method,
    path,
    parameters = [],
    requestBody,
  }: Pick<Call, "method" | "path" | "parameters" | "requestBody">,
  media: string | undefined,
  { values, body }: Tried,
): [address: string, init: RequestInit] {
  const filled = path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(values[name] ?? ""));
  const query = new URLSearchParams(
    parameters
      .filter((one) => one.in === "query" && values[one.name])
      .map(({ name }) => [name, values[name]!] as [string, string]),
  ).toString();
  return [
    `/api/v1${filled}${query ? `?${query}` : ""}`,
    requestBody ? { method, headers: { "Content-Type": media ?? "application/json" }, body } : { method },
  ];
}
