import type { MissSummary } from "../../core/misses/miss.ts";
import type { Site } from "../../core/sites/site.ts";
import { useTakeProposal } from "./use-misses.ts";
import * as say from "./words.ts";

/** Routes that would answer many misses of one shape at once. */
export function Proposals({ site, proposals }: { site: Site; proposals: MissSummary["proposals"] }) {
  const take = useTakeProposal(site);
  if (proposals.length === 0) return null;
  return (
    <section aria-labelledby="proposals" className="mb-4 rounded border border-line bg-sheet p-3">
      <h2 id="proposals" className="font-semibold">
        {say.oneRouteForMany}
      </h2>
      <ul className="mt-1 grid gap-2">
        {proposals.map((one) => {
          const host = one.host === site.hosts[0]?.name ? null : one.host;
          const input = {
            kind: "redirect" as const,
            host,
            match: one.match,
            address: one.address,
            destination: one.destination,
          };
          return (
            <li key={one.host + one.address} className="grid gap-0.5 border-t border-line/60 pt-2">
              <p className="flex flex-wrap items-baseline gap-2">
                <span className="font-mono font-semibold">{one.address}</span>
                <span className="text-quiet">{say.leadsTo}</span>
                <span className="font-mono">{one.destination}</span>
                <button
                  data-needs="editor"
                  className="action py-0.5"
                  disabled={take.isPending}
                  onClick={() => take.mutate(input)}
                >
                  {say.answerWithIt(one.answers.length)}
                </button>
              </p>
              <p className="text-sm text-quiet">
                {say.timesAskedFor(
                  one.times,
                  one.reason,
                  one.answers.slice(0, 4).join(", "),
                  one.answers.length > 4 ? say.andMore2(one.answers.length - 4) : "",
                )}
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
