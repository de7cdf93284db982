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

const SLASH_WORDS: Readonly<Record<Slashes, string>> = {
  written: "as each page’s path is written",
  without: "without a slash at the end",
  with: "with a slash at the end",
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
        word="Paths of pages"
        says={`${SLASH_WORDS[now.slashes]} · letter case ${now.anyLetters ? "does not count" : "counts"}`}
        names={["delivered.slashes", "delivered.shortRoot"]}
      >
        <div className="flex flex-wrap items-start gap-4">
          <SelectField
            name="delivered.slashes"
            label="Readers see them"
            hint="Every other spelling leads there (308)."
            options={SLASHES.map((slashes) => [slashes, SLASH_WORDS[slashes]])}
          />
          {hasShortHost ? (
            <TextField
              name="delivered.shortRoot"
              label="The root of hosts for short links leads to"
              placeholder={front}
              mono
              className="w-80"
            />
          ) : null}
        </div>
        <CheckField name="delivered.anyLetters">
          find pages and files whatever the case of the letters asked for
        </CheckField>
      </SettingsGroup>
      <SettingsGroup
        word="Icon"
        says={icon ?? (now.icon ? "a picture" : "the first letter of the name")}
        names={["delivered.icon"]}
      >
        <div className="max-w-96">
          <ChooseField
            name="delivered.icon"
            label="Picture in tabs and bookmarks"
            none="the first letter of the name"
            hint="Square, and simple enough for 16 pixels. Upload it among the files first."
            options={pictures}
          />
        </div>
      </SettingsGroup>
      <SettingsGroup
        word="Search engines and feeds"
        says={now.robots.trim() ? "robots.txt of your own" : "may read all"}
        names={["delivered.robots"]}
      >
        <AreaField
          name="delivered.robots"
          label="robots.txt"
          mono
          rows={6}
          placeholder={"User-agent: *\nAllow: /"}
          hint="Where the sitemap is stands below it by itself. A page or a short link is kept out of results by noindex; what is disallowed here is not even asked."
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
