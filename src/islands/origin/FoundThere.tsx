import type { Found, Origin } from "../../core/origin/origin.ts";
import type { Site } from "../../core/sites/site.ts";
import { entriesOf } from "../../ui/choose/options.ts";
import { api } from "../../ui/client/api.ts";
import { ChooseManyField } from "../../ui/form/choose-fields.tsx";
import { AreaField, TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { count } from "../../ui/format/format.ts";
import { languageName } from "../sites/locale-options.ts";
import { notify } from "../../ui/notices/notices.ts";
import { Behind } from "../../ui/panel/Behind.tsx";
import { refreshReading } from "./use-origin.ts";
import { counted } from "../../ui/format/counted.ts";
import * as say from "./words.ts";

/** What a first look found, and the choice of what is read of it. */
export function FoundThere({ site, origin, found }: { site: Site; origin: Origin; found: Found }) {
  const { robots, delaySeconds, documents, documentsLeft, parts, hosts, languages } = found;
  const isBarred = robots === "forbids-all" || robots === "unreadable";
  return (
    <section aria-label={say.whatIsThere} className="grid min-w-0 gap-2 grid-cols-[minmax(0,1fr)]">
      <h3 className="font-semibold">{say.whatIsThere}</h3>
      {found.title ? <p>“{found.title}”</p> : null}
      <p className={isBarred ? "text-bad" : "text-sm text-quiet"}>
        {say.robotsSays[robots]} {delaySeconds === null ? "" : say.itAsksForAPause(count(delaySeconds))}
      </p>
      <ul className="grid gap-0.5 text-sm">
        {documents.map(({ address, kind, pages, fault }) => (
          <li key={address} className="flex flex-wrap gap-x-2">
            <span className="w-32 shrink-0 text-quiet">{say.documentKinds[kind]}</span>
            <span className="min-w-0 font-mono wrap-anywhere">{pathOf(address, origin.address)}</span>
            {fault ? (
              <span className="text-bad">{fault}</span>
            ) : kind === "robots" || kind === "page" ? null : (
              <span className="text-quiet">
                {kind === "index" ? counted(pages, ...say.ofSitemaps) : counted(pages, ...say.ofPages)}
              </span>
            )}
          </li>
        ))}
      </ul>
      {documentsLeft > 0 ? (
        <p className="text-sm text-quiet">{say.moreDocuments(count(documentsLeft))}</p>
      ) : null}
      <h4 className="mt-2 font-semibold">{say.partsOfTheSite}</h4>
      <Counted entries={parts.map(({ part, pages }) => [part === "" ? say.atTheRoot : `/${part}/`, pages])} />
      {languages.length > 0 ? (
        <p className="text-sm">
          <span className="text-quiet">{say.languages}: </span>
          {languages
            .map(({ language }) => (language === "" ? say.notSaid : languageName(language)))
            .join(", ")}
        </p>
      ) : null}
      {hosts.length > 0 ? (
        <Behind word={say.hostsItLinksTo} says={count(hosts.length)}>
          <Counted entries={hosts.map(({ host, links }) => [host, links])} />
        </Behind>
      ) : null}
      <WhatIsRead
        site={site}
        origin={origin}
        parts={parts.map(({ part }) => part).filter((part) => part !== "")}
      />
    </section>
  );
}

function pathOf(address: string, origin: string): string {
  const { origin: home } = new URL(origin);
  return address.startsWith(`${home}/`) ? address.slice(home.length) : address;
}

function Counted({ entries }: { entries: readonly (readonly [word: string, pages: number])[] }) {
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-0.5 text-sm">
      {entries.map(([word, pages]) => (
        <li key={word}>
          <span className="font-mono">{word}</span> <span className="text-quiet">{count(pages)}</span>
        </li>
      ))}
    </ul>
  );
}

function WhatIsRead({ site, origin, parts }: { site: Site; origin: Origin; parts: readonly string[] }) {
  const { settings } = origin;
  const form = useSavedForm({
    values: {
      parts: settings.parts,
      leaveOut: settings.leaveOut.join("\n"),
      pause: String(settings.pauseMs / 1_000),
      mostPages: String(settings.mostPages),
    },
    save: (typed) =>
      api("PATCH /sites/:site/origin", {
        site: site.id,
        body: {
          version: origin.version,
          settings: {
            parts: typed.parts,
            leaveOut: entriesOf(typed.leaveOut, /\n/),
            pauseMs: Math.round(Number(typed.pause.replace(",", ".")) * 1_000),
            mostPages: Number(typed.mostPages),
          },
        },
      }),
    fieldOf: (path) => path.replace(/^settings\./, "").replace("pauseMs", "pause"),
    onSaved: () => {
      notify(say.saved);
      void refreshReading();
    },
    kept: { key: `reading:${site.id}`, base: String(origin.version) },
  });
  return (
    <Behind
      word={say.whatIsRead}
      says={settings.parts.length === 0 ? say.allOfIt : settings.parts.join(", ")}
    >
      <Form of={form} className="grid gap-3">
        <ChooseManyField
          name="parts"
          label={say.partsToRead}
          placeholder={say.allOfIt}
          options={parts.map((part) => ({ value: part, word: `/${part}/` }))}
        />
        <AreaField name="leaveOut" label={say.leftOut} mono rows={3} placeholder={say.suchAsSearch} />
        <div className="grid gap-3 sm:grid-cols-2">
          <TextField name="pause" label={say.secondsBetween} inputMode="decimal" />
          <TextField name="mostPages" label={say.pagesAtMost} inputMode="numeric" />
        </div>
        <SaveButton of={form}>{say.save}</SaveButton>
      </Form>
    </Behind>
  );
}
