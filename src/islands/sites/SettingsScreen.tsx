import type { MissPolicy, Site } from "../../core/sites/site.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { HistoryLink } from "../../ui/links/HistoryLink.tsx";
import { Behind } from "../../ui/panel/Behind.tsx";
import { Hosts } from "./hosts/Hosts.tsx";
import { MoveShortLinks } from "./MoveShortLinks.tsx";
import { SiteFields } from "./SiteFields.tsx";
import { Tokens } from "./Tokens.tsx";
import { WholeSite } from "./WholeSite.tsx";
import * as say from "./words.ts";

const MISS_WORDS: Readonly<Record<MissPolicy["answer"], string>> = {
  help: say.aPageThatHelps,
  closest: say.theClosestAddress,
  destination: say.aChosenAddress,
};

/** A site's hosts, what it says of itself and of new routes, the tokens of scripts, and what is rarely done with it. */
export function SettingsScreen({ site, ownsAll }: { site: Site; ownsAll: boolean }) {
  return (
    <Screen>
      <div className="grid max-w-4xl grid-cols-[minmax(0,1fr)] gap-8">
        <section aria-labelledby="hosts">
          <h1 id="hosts" className="mb-2 text-lg font-semibold">
            {say.hostsOf(site.name)}
          </h1>
          <Hosts site={site} />
        </section>
        <div>
          <SiteFields site={site} />
          <p className="mt-2">
            <HistoryLink site={site} kind="site" />
          </p>
        </div>
        <Elsewhere site={site} />
        <div>
          <div data-needs="editor">
            <Behind word={say.moveShortLinksToAnotherDirectory}>
              <MoveShortLinks site={site} />
            </Behind>
          </div>
          {ownsAll ? (
            <Behind word={say.apiTokensOfTheInstallation}>
              <Tokens />
            </Behind>
          ) : null}
          <div data-needs="owner" data-even-at-rest>
            <Behind word={say.exportArchiveOrDeleteTheWholeSite} isOpen={site.archivedAt !== null}>
              <WholeSite site={site} />
            </Behind>
          </div>
        </div>
      </div>
    </Screen>
  );
}

// What has a screen of its own is found from here, too.
function Elsewhere({ site }: { site: Site }) {
  const { misses, disclosure } = site;
  const places = [
    ["misses", say.whatMissesGet, MISS_WORDS[misses.answer]],
    [
      "rules/disclosure",
      say.disclosureOfPaidLinks,
      disclosure.place ? say.placedOnPagesWithPaidLinks : say.placedByHand,
    ],
    ["navigation", say.navigation, say.whatLeadsAroundTheSite],
    ["people", say.people, say.whoCanSignIn],
  ] as const;
  return (
    <nav aria-label={say.settingsWithAScreenOfTheirOwn} className="text-sm">
      <ul className="grid gap-1">
        {places.map(([path, word, says]) => (
          <li
            key={path}
            data-needs={path === "people" ? "owner" : undefined}
            className="grid gap-x-4 grid-cols-[minmax(0,1fr)] sm:grid-cols-[13rem_minmax(0,1fr)]"
          >
            <a className="justify-self-start py-[3px] text-accent underline" href={`/${site.key}/${path}`}>
              {word}
            </a>
            <span className="py-[3px] text-quiet">{says}</span>
          </li>
        ))}
      </ul>
    </nav>
  );
}
