import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Swap, TriedSwaps as Tried } from "../../../core/rules/swaps/swap.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import * as say from "./words.ts";

const SETTLED_MS = 400;

/** What the set that is worked on would change, tried anew whenever it changes. */
export function useTriedSwaps(site: Site, swaps: readonly Swap[] | undefined) {
  const asked = useDebounced(swaps ? JSON.stringify(swaps) : "", SETTLED_MS);
  return useQuery({
    queryKey: ["POST /sites/:site/swaps/try", site.id, asked],
    queryFn: () =>
      api("POST /sites/:site/swaps/try", { site: site.id, body: { swaps: JSON.parse(asked) as Swap[] } }),
    enabled: asked !== "",
    placeholderData: keepPreviousData,
  });
}

/** The same, with samples: where each link stands, what is written and what readers get. */
export function TriedSwaps({ site, of }: { site: Site; of: ReturnType<typeof useTriedSwaps> }) {
  return (
    <section
      aria-label={say.whatItWouldChange}
      className="grid min-w-0 gap-3 rounded border border-line bg-sheet p-4 grid-cols-[minmax(0,1fr)] lg:sticky lg:top-16 lg:max-h-[calc(100vh-5rem)] lg:overflow-auto"
    >
      <h2 className="font-semibold">{say.whatItWouldChange}</h2>
      {of.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(of.error)}
        </p>
      ) : of.data ? (
        <div className={of.isFetching ? "grid gap-3 opacity-60" : "grid gap-3"}>
          <Summary tried={of.data} />
          <Samples site={site} samples={of.data.samples} />
        </div>
      ) : (
        <p className="text-quiet">{say.trying}</p>
      )}
    </section>
  );
}

function Summary({ tried: { links, pages, outOfReach } }: { tried: Tried }) {
  return (
    <p aria-live="polite">
      {links === 0 ? say.changesNone : say.tried(links, pages)}{" "}
      {outOfReach > 0 ? <span className="text-warn">{say.outOfReach(outOfReach)}</span> : null}
    </p>
  );
}

function Samples({ site, samples }: { site: Site; samples: Tried["samples"] }) {
  return (
    <ul className="grid gap-3 text-sm">
      {samples.map(({ page, words, before, after }, at) => (
        <li key={at} className="grid gap-0.5 border-t border-line/60 pt-2">
          <p>
            “{words || say.noWords}”{" "}
            <a
              className="inline-block py-0.5 text-quiet underline"
              href={`/${site.key}/ledger?q=${encodeURIComponent(before)}`}
            >
              {page}
            </a>
          </p>
          <p className="font-mono text-xs wrap-anywhere">
            <span className="sr-only">{say.before} </span>
            <del className="text-bad no-underline">{before}</del>
          </p>
          <p className="font-mono text-xs wrap-anywhere">
            <span className="sr-only">{say.after} </span>
            <ins className="text-good no-underline">→ {after}</ins>
          </p>
        </li>
      ))}
    </ul>
  );
}
