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
import { countryName, languageOptions } from "./locale-options.ts";
import { DeliveredFields, saidDelivered, typedDelivered } from "./DeliveredFields.tsx";
import { RouteDefaultFields } from "./RouteDefaultFields.tsx";
import { SettingsGroup } from "./SettingsGroup.tsx";
import { VariableFields } from "./VariableFields.tsx";

const PlaceFields = whenSeen(
  async () => (await import("./PlaceFields.tsx")).PlaceFields,
  () => <div className="h-40" />,
);
const LANGUAGES = languageOptions();

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
      notify("Saved");
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
          Save
        </SaveButton>
      }
    >
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-2">
        <TextField name="name" label="Name of the site" />
        <TextField name="tagline" label="Line below the name" />
      </div>
      <div>
        <SettingsGroup
          word="Language and place"
          says={[
            LANGUAGES.find(({ value }) => value === now.language)?.word,
            now.timeZone || "time zone of whoever looks",
            now.country ? countryName(now.country) : "no country for phone numbers",
          ].join(" · ")}
          names={["language", "timeZone", "country"]}
        >
          <PlaceFields />
        </SettingsGroup>
        <DeliveredFields site={site} />
        <RouteDefaultFields site={site} />
        <SettingsGroup
          word="Paid links on a page"
          says={`at most ${now.paidLimit}, ${now.paidLimitLong} on a page of more than ${now.longWords} words`}
          names={["paidLimit", "paidLimitLong", "longWords"]}
        >
          <div className="flex flex-wrap gap-4">
            {number("paidLimit", "On a page of usual length")}
            {number("paidLimitLong", "On a long page")}
            {number("longWords", "A page is long from this many words")}
          </div>
        </SettingsGroup>
        <SettingsGroup
          word="Variables"
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
          word="How long things are kept"
          says={`single clicks ${now.clickMonths} months, history ${now.historyMonths} months`}
          names={["clickMonths", "historyMonths"]}
        >
          <div className="flex flex-wrap gap-4">
            {number("clickMonths", "Single clicks, in months")}
            {number("historyMonths", "History, in months")}
          </div>
          <p className="text-sm text-quiet">
            What was counted stays for good; after these months of clicks only the counts.
          </p>
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
