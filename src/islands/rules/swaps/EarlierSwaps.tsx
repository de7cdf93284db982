import { useMutation, useQuery } from "@tanstack/react-query";
import { swapSentence } from "../../../core/rules/swaps/sentence.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { asking, keyOf, queries, refresh } from "../../../ui/client/queries.ts";
import { when } from "../../../ui/format/format.ts";
import { notify } from "../../../ui/notices/notices.ts";
import * as say from "./words.ts";

/** The sets that were in force before, each with the way back to it. */
export function EarlierSwaps({ site, version }: { site: Site; version: number }) {
  const { data } = useQuery(asking("GET /sites/:site/swaps/versions", { site: site.id }));
  const back = useMutation({
    mutationFn: (kept: number) =>
      api("POST /sites/:site/swaps/versions/:version/restore", {
        site: site.id,
        version: kept,
        body: { version },
      }),
    onSuccess: (saved) => {
      queries.setQueryData(keyOf("GET /sites/:site/swaps", { site: site.id }), saved);
      void refresh("GET /sites/:site/swaps/versions");
      notify(say.applied(saved.version));
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const earlier = data?.items.filter((set) => set.version !== version) ?? [];
  if (earlier.length === 0) return null;
  return (
    <details className="mt-6">
      <summary className="py-1 font-semibold">{say.earlierSets}</summary>
      <ol className="grid gap-3 pt-2">
        {earlier.map((set) => (
          <li key={set.version} className="border-t border-line/60 pt-2 text-sm">
            <p className="flex flex-wrap items-center gap-3">
              <span className="grow text-quiet">
                {say.setOf(set.version, set.createdBy, when(set.createdAt))}
              </span>
              <button
                data-needs="editor"
                className="action py-0.5"
                disabled={back.isPending}
                onClick={() => back.mutate(set.version)}
              >
                {say.putBack(set.version)}
              </button>
            </p>
            {set.swaps.map((swap, at) => (
              <p key={at} className="wrap-anywhere">
                {swapSentence(swap)}
              </p>
            ))}
            {set.swaps.length === 0 ? <p className="text-quiet">{say.empty}</p> : null}
          </li>
        ))}
      </ol>
    </details>
  );
}
