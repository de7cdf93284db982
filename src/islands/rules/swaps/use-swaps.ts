import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Swap, SwapSet } from "../../../core/rules/swaps/swap.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, ApiProblem, messageOf } from "../../../ui/client/api.ts";
import { asking, keyOf, queries, refresh } from "../../../ui/client/queries.ts";
import { notify } from "../../../ui/notices/notices.ts";
import * as say from "./words.ts";

/** A swap of the set that is worked on, told by a key of this browser's own. */
export interface WorkedSwap {
  key: string;
  swap: Swap;
}

let made = 0;
/** Gives a swap its key. */
export function workedSwap(swap: Swap): WorkedSwap {
  return { key: `swap-made-${(made += 1)}`, swap };
}

interface Working {
  base: number;
  swaps: readonly WorkedSwap[];
}

/** Works on the set of swaps; what is typed survives a closed tab, and nothing acts before it is applied. */
export function useSwaps(site: Site) {
  const storageKey = `maprope:swaps:${site.id}`;
  const query = useQuery(asking("GET /sites/:site/swaps", { site: site.id }));
  const inForce = query.data;
  /** What is worked on; undefined while it is the set in force. */
  const [working, setWorking] = useState<Working>();
  useEffect(() => {
    const text = localStorage.getItem(storageKey);
    if (text === null) return;
    void import("./kept-swaps.ts").then(({ readKeptSwaps }) => {
      const kept = readKeptSwaps(text);
      if (kept) setWorking({ base: kept.base, swaps: kept.swaps.map(workedSwap) });
    });
  }, [storageKey]);
  const put = (next: Working | undefined): void => {
    setWorking(next);
    if (!next) return localStorage.removeItem(storageKey);
    localStorage.setItem(
      storageKey,
      JSON.stringify({ base: next.base, swaps: next.swaps.map(({ swap }) => swap) }),
    );
  };
  const save = useMutation({
    mutationFn: (next: SwapSet) => api("PUT /sites/:site/swaps", { site: site.id, body: next }),
    onSuccess: (saved) => {
      const before = inForce;
      queries.setQueryData(keyOf("GET /sites/:site/swaps", { site: site.id }), saved);
      void refresh("GET /sites/:site/swaps/versions");
      put(undefined);
      notify(say.applied(saved.version), {
        undo: before ? () => save.mutate({ version: saved.version, swaps: before.swaps }) : undefined,
      });
    },
    onError: (error) => {
      notify(messageOf(error), { tone: "failed" });
      if (error instanceof ApiProblem && error.status === 409) void query.refetch();
    },
  });
  // As the server drew them, so that they are taken over as they are.
  const swaps =
    working?.swaps ??
    (inForce?.swaps ?? []).map((swap, at) => ({ key: `swap-${inForce!.version}-${at}`, swap }));
  const base = working?.base ?? inForce?.version ?? 0;
  return {
    inForce,
    failure: query.isError ? messageOf(query.error) : undefined,
    swaps,
    base,
    isChanged: working !== undefined,
    isOvertaken: working !== undefined && inForce !== undefined && inForce.version !== base,
    edit: (next: readonly WorkedSwap[]) => put({ base, swaps: next }),
    discard: () => put(undefined),
    rebase: () => inForce && put({ base: inForce.version, swaps }),
    apply: () => save.mutate({ version: base, swaps: swaps.map(({ swap }) => swap) }),
    isApplying: save.isPending,
  };
}
export type WorkingSwaps = ReturnType<typeof useSwaps>;
