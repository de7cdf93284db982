import type { Site } from "../../core/sites/site.ts";
import { messageOf } from "../../ui/client/api.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { FoundThere } from "./FoundThere.tsx";
import { NameOrigin } from "./NameOrigin.tsx";
import { OriginHead } from "./OriginHead.tsx";
import { ReadingResults } from "./ReadingResults.tsx";
import { ReadPages } from "./ReadPages.tsx";
import { useOrigin } from "./use-origin.ts";

/** Pages that stand in another system: where, what is there, what is read of it, and what was found. */
export function OriginScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="origin" />
      {site.origin === null ? <NameOrigin site={site} /> : <Elsewhere site={site} />}
    </Screen>
  );
}

function Elsewhere({ site }: { site: Site }) {
  const { origin, results, looking, reading, isReading } = useOrigin(site);
  if (origin.isError) return <p className="text-bad">{messageOf(origin.error)}</p>;
  if (!origin.data) return null;
  return (
    <div className="grid gap-5 grid-cols-[minmax(0,1fr)]">
      <OriginHead site={site} origin={origin.data} looking={looking} reading={reading} />
      <div className="grid items-start gap-x-8 gap-y-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-2">
        {results.data ? (
          <ReadingResults
            site={site}
            results={results.data}
            traps={origin.data.traps}
            isReading={isReading}
          />
        ) : null}
        {origin.data.found ? (
          <FoundThere key={origin.data.version} site={site} origin={origin.data} found={origin.data.found} />
        ) : null}
      </div>
      {origin.data.states.length > 0 ? (
        <ReadPages
          site={site}
          states={origin.data.states}
          isReading={isReading}
          onRead={(begin) => reading.start(begin)}
        />
      ) : null}
    </div>
  );
}
