import { QueryClient } from "@tanstack/react-query";
import { api, ApiProblem, type Answer, type CallName, type Input, type Inputs } from "./api.ts";
import { isStale } from "./stale.ts";

// Busy, or on its way to another database: what was asked is asked again, after longer and longer rests.
function isPassing({ status }: ApiProblem): boolean {
  return status === 429 || (status >= 502 && status <= 504);
}

/** Keeps answers of the API. */
export function newQueries(): QueryClient {
  const isOnServer = typeof document === "undefined";
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 2_000,
        refetchInterval: ({ state }) => (isStale(state.data) ? 1_000 : false),
        retry: (count, error) =>
          !isOnServer && (error instanceof ApiProblem ? isPassing(error) && count < 6 : count < 2),
      },
    },
  });
}

/** Server state of all islands on a screen. */
export const queries = newQueries();

/** The key of a call's answer in the query layer: the call, and what it was asked. */
export function keyOf<N extends CallName>(
  name: N,
  ...[input]: Inputs<N>
): readonly [N, Input<N> | undefined] {
  return [name, input];
}

/** A call as a query: its key, and how it is asked. */
export function asking<N extends CallName>(
  name: N,
  ...inputs: Inputs<N>
): { queryKey: readonly unknown[]; queryFn: () => Promise<Answer<N>> } {
  return { queryKey: keyOf(name, ...inputs), queryFn: () => api(name, ...inputs) };
}

/** Lets the answers of these calls be asked for anew, whatever they were asked. */
export function refresh(...names: readonly CallName[]): Promise<void> {
  return queries.invalidateQueries({ predicate: ({ queryKey }) => names.includes(queryKey[0] as CallName) });
}
