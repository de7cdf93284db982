import type { CallsByName } from "../contract.ts";

/** A call of the API by its method and path, as the contract names it. */
export type CallName = keyof CallsByName;

/** The method of a call. */
export function methodOf(name: CallName): string {
  return name.slice(0, name.indexOf(" "));
}

/** The address of a call, below the host: the parameters of its path filled in, and its query. */
export function addressOf(name: CallName, input: unknown): string {
  const { query = {}, ...params } = (input ?? {}) as { query?: Record<string, unknown> };
  const path = name
    .slice(name.indexOf(" ") + 1)
    .replace(/:(\w+)/g, (_, key: string) =>
      encodeURIComponent(String((params as Record<string, unknown>)[key])),
    );
  const given = Object.entries(query).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, String(value)]],
  );
  const search = new URLSearchParams(given).toString();
  return `/api/v1${path}${search ? `?${search}` : ""}`;
}
