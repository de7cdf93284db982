import { useFormContext } from "react-hook-form";
import type { DeliveredSiteSettings } from "../../core/sites/delivered-site.ts";
import { feedPath } from "../../core/sites/machine-documents.ts";
import type { Slashes } from "../../core/sites/spelling.ts";
import { SLASHES } from "../../core/sites/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { ChooseField } from "../../ui/form/choose-fields.tsx";
import { AreaField, CheckField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { usePictures } from "../files/use-pictures.ts";
import { SettingsGroup } from "./SettingsGroup.tsx";
import * as say from "./words.ts";

const SLASH_WORDS: Readonly<Record<Slashes, string>> = {
  written: say.asEachPagesPathIsWritten,
  without: say.withoutASlashAtTheEnd,
  with: say.withASlashAtTheEnd,
};

/** What the fields hold: empty for what is as it is everywhere. */
export interface DeliveredTyped {
  slashes: Slashes;
  anyLetters: boolean;
  robots: string;
  icon: string;
  shortRoot: string;
}

export function typedDelivered(settings: DeliveredSiteSettings): DeliveredTyped {
  const { slashes = "written", anyLetters = false, robots = "", icon = "", shortRoot = "" } = settings;
  return { slashes, anyLetters, robots, icon, shortRoot };
}

/** What is said, without what is as it is everywhere. */
export function saidDelivered({ slashes, anyLetters, ...texts }: DeliveredTyped): DeliveredSiteSettings {
  return {
    ...Object.fromEntries(Object.entries(texts).filter(([, text]) => text.trim() !== "")),
    ...(slashes === "written" ? {} : { slashes }),
    ...(anyLetters ? { anyLetters } : {}),
  };
}

/** How the site's paths are spelled, its icon, and what search engines and feed readers find. */
export function DeliveredFields({ site }: { site: Site }) {
  const { delivered: now } = useFormContext<{ delivered: DeliveredTyped }>().watch();
  const pictures = usePictures(site, "id");
  const icon = pictures.find(({ value }) => value === now.icon)?.word;
  const front = site.hosts.find(({ role }) => role === "primary")!.url;
  const hasShortHost = site.hosts.some(({ role }) => role === "short");
  return (
    <>
      <SettingsGroup
        word={say.pathsOfPages}
        says={say.letterCase(SLASH_WORDS[now.slashes], now.anyLetters ? say.doesNotCount : say.counts)}
        names={["delivered.slashes", "delivered.shortRoot"]}
      >
        <div className="flex flex-wrap items-start gap-4">
          <SelectField
            name="delivered.slashes"
            label={say.readersSeeThem}
            hint={say.everyOtherSpellingLeadsThere308}
            options={SLASHES.map((slashes) => [slashes, SLASH_WORDS[slashes]])}
          />
          {hasShortHost ? (
            <TextField
              name="delivered.shortRoot"
              label={say.theRootOfHostsForShortLinks}
              placeholder={front}
              mono
              className="w-80"
            />
          ) : null}
        </div>
        <CheckField name="delivered.anyLetters">{say.findPagesAndFilesWhateverTheCase}</CheckField>
      </SettingsGroup>
      <SettingsGroup
        word={say.icon}
        says={icon ?? (now.icon ? say.aPictureOfTheSite : say.theFirstLetterOfTheName)}
        names={["delivered.icon"]}
      >
        <div className="max-w-96">
          <ChooseField
            name="delivered.icon"
            label={say.pictureInTabsAndBookmarks}
            none={say.theFirstLetterOfTheName}
            hint={say.squareAndSimpleEnoughFor16Pixels}
            options={pictures}
          />
        </div>
      </SettingsGroup>
      <SettingsGroup
        word={say.searchEnginesAndFeeds}
        says={now.robots.trim() ? say.robotsTxtOfYourOwn : say.mayReadAll}
        names={["delivered.robots"]}
      >
        <AreaField
          name="delivered.robots"
          label={say.robotsTxt}
          mono
          rows={6}
          placeholder={say.userAgentAllow}
          hint={say.whereTheSitemapIsStandsBelowIt}
        />
        <p className="flex flex-wrap gap-x-4 text-sm">
          {["/robots.txt", "/sitemap.xml", feedPath(null)].map((path) => (
            <a
              key={path}
              className="font-mono text-accent underline"
              href={new URL(path, front).href}
              target="_blank"
              rel="noopener"
            >
              {path}
            </a>
          ))}
        </p>
      </SettingsGroup>
    </>
  );
}
