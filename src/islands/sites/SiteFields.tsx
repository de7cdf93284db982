import { useState } from "react";
import { usualRoute } from "../../core/sites/usual-route.ts";
import type { RouteDefaults } from "../../core/sites/route-defaults.ts";
import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { TextField } from "../../ui/form/fields.tsx";
import { whenSeen } from "../../ui/frame/later.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { notify } from "../../ui/notices/notices.ts";
import { countryName, languageName } from "./locale-options.ts";
import { DeliveredFields, saidDelivered, typedDelivered } from "./DeliveredFields.tsx";
import { RouteDefaultFields } from "./RouteDefaultFields.tsx";
import { SettingsGroup } from "./SettingsGroup.tsx";
import { VariableFields } from "./VariableFields.tsx";
import * as say from "./words.ts";

const PlaceFields = whenSeen(
  async () => (await import("./PlaceFields.tsx")).PlaceFields,
  () => <div className="h-40" />,
);

/** What the site is called, its variables, how many paid links a page bears, and how long clicks are kept. */
export function SiteFields({ site: first }: { site: Site }) {
  const [site, setSite] = useState(first);
  const form = useSavedForm({
    values: typed(first),
    save: ({ variables, defaults, delivered, ...fields }) =>
      api("PATCH /sites/:site", {
        site: site.id,
        body: {
          ...fields,
          defaults: defaultsOf(defaults),
          delivered: saidDelivered(delivered),
          variables: Object.fromEntries(
            variables.filter(({ name }) => name.trim()).map(({ name, value }) => [name, value]),
          ),
          version: site.version,
        },
      }),
    onSaved: (saved, { reset }) => {
      setSite(saved);
      reset(typed(saved));
      notify(say.saved);
      // Dates and numbers of this screen are in the old language and zone until it is opened anew.
      if (saved.language !== site.language || saved.timeZone !== site.timeZone) location.reload();
    },
    kept: { key: `settings:${first.id}`, base: String(site.version) },
  });
  const now = form.watch();
  const number = (name: string, label: string) => (
    <TextField name={name} label={label} type="number" min={0} className="w-28" />
  );
  return (
    <Form
      of={form}
      needs="owner"
      className="grid gap-4"
      actions={
        <SaveButton of={form} className="justify-self-start">
          {say.save}
        </SaveButton>
      }
    >
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-2">
        <TextField name="name" label={say.nameOfTheSite} />
        <TextField name="tagline" label={say.lineBelowTheName} />
      </div>
      <div>
        <SettingsGroup
          word={say.languageAndPlace}
          says={[
            languageName(now.language),
            now.timeZone || say.timeZoneOfWhoeverLooks,
            now.country ? countryName(now.country) : say.noCountryForPhoneNumbers,
          ].join(" · ")}
          names={["language", "timeZone", "country"]}
        >
          <PlaceFields />
        </SettingsGroup>
        <DeliveredFields site={site} />
        <RouteDefaultFields site={site} />
        <SettingsGroup
          word={say.paidLinksOnAPage}
          says={say.atMostOnAPageOfMore(now.paidLimit, now.paidLimitLong, now.longWords)}
          names={["paidLimit", "paidLimitLong", "longWords"]}
        >
          <div className="flex flex-wrap gap-4">
            {number("paidLimit", say.onAPageOfUsualLength)}
            {number("paidLimitLong", say.onALongPage)}
            {number("longWords", say.aPageIsLongFromThisMany)}
          </div>
        </SettingsGroup>
        <SettingsGroup
          word={say.variables}
          says={
            now.variables
              .filter(({ name }) => name)
              .map(({ name }) => `{{${name}}}`)
              .join(" ") || "none"
          }
          names={["variables"]}
        >
          <VariableFields />
        </SettingsGroup>
        <SettingsGroup
          word={say.howLongThingsAreKept}
          says={say.singleClicksMonthsHistoryMonths(now.clickMonths, now.historyMonths)}
          names={["clickMonths", "historyMonths"]}
        >
          <div className="flex flex-wrap gap-4">
            {number("clickMonths", say.singleClicksInMonths)}
            {number("historyMonths", say.historyInMonths)}
          </div>
          <p className="text-sm text-quiet">{say.whatWasCountedStaysForGoodAfter}</p>
        </SettingsGroup>
      </div>
    </Form>
  );
}

function defaultsOf({
  noindex,
  nofollow,
  query,
  shortHost,
  ...statuses
}: ReturnType<typeof typed>["defaults"]): RouteDefaults {
  return {
    shortStatus: Number(statuses.shortStatus) as RouteDefaults["shortStatus"],
    redirectStatus: Number(statuses.redirectStatus) as RouteDefaults["redirectStatus"],
    query,
    robots: { noindex, nofollow },
    ...(shortHost ? { shortHost } : {}),
  };
}

function typed({
  name,
  tagline,
  paidLimit,
  paidLimitLong,
  longWords,
  clickMonths,
  historyMonths,
  country,
  language,
  timeZone,
  shortPrefix,
  defaults,
  delivered,
  variables,
}: Site) {
  const [short, redirect] = [usualRoute(defaults, "short"), usualRoute(defaults, "redirect")];
  return {
    name,
    tagline,
    paidLimit,
    paidLimitLong,
    longWords,
    clickMonths,
    historyMonths,
    country,
    language,
    timeZone,
    shortPrefix,
    defaults: {
      shortStatus: String(short.status),
      redirectStatus: String(redirect.status),
      query: short.query,
      noindex: short.noindex,
      nofollow: short.nofollow,
      shortHost: defaults.shortHost ?? "",
    },
    delivered: typedDelivered(delivered),
    variables: Object.entries(variables).map(([key, value]) => ({ name: key, value })),
  };
}
