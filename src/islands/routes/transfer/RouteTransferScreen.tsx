import type { Site } from "../../../core/sites/site.ts";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { ImportRoutes } from "./ImportRoutes.tsx";
import { ShortenMany } from "./ShortenMany.tsx";
import { hrefOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

const FORMATS = [
  ["csv", "CSV", say.forSpreadsheetsReadBackAsItWas],
  ["json", "JSON", say.everythingForOtherSystems],
  ["nginx", "nginx", say.mapsAndAServerThatAnswerThe],
  ["apache", say.apache, say.aVirtualHostThatAnswersTheSame],
] as const;

/** Routes in from lists and files, and out as files and server configurations. */
export function RouteTransferScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="routes/transfer" />
      <div className="grid items-start gap-8 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_20rem]">
        <div className="grid gap-8">
          <ShortenMany site={site} />
          <ImportRoutes site={site} />
        </div>
        <section aria-labelledby="take-out">
          <h2 id="take-out" className="mb-1 font-semibold">
            {say.exportRoutes}
          </h2>
          <ul className="grid gap-2">
            {FORMATS.map(([format, word, what]) => (
              <li key={format} className="flex items-baseline gap-2">
                <a
                  className="action py-0.5"
                  href={hrefOf("GET /sites/:site/routes/export", { site: site.id, query: { format } })}
                  download
                >
                  {word}
                </a>
                <span className="text-sm text-quiet">{what}</span>
              </li>
            ))}
          </ul>
          <p className="mt-3 text-sm text-quiet">{say.whatAServersConfigurationCannotSay}</p>
        </section>
      </div>
    </Screen>
  );
}
