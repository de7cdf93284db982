import { useMutation } from "@tanstack/react-query";
import { getCountries } from "libphonenumber-js/min";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { useKeptState } from "../../ui/client/kept-state.ts";
import { notify } from "../../ui/notices/notices.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";

interface Variable {
  name: string;
  value: string;
}

const NAMES = new Intl.DisplayNames("en", { type: "region" });
const COUNTRIES = getCountries()
  .map((code): [string, string] => [code, NAMES.of(code) ?? code])
  .sort(([, a], [, b]) => a.localeCompare(b, "en"));

/** What the site is called, its variables, how many paid links a page bears, and how long clicks are kept. */
export function SiteFields({ site: first }: { site: Site }) {
  const [site, setSite] = useState(first);
  const [{ fields, variables }, setTyped, forget] = useKeptState(
    `settings:${first.id}`,
    String(site.version),
    () => ({
      fields: {
        name: first.name,
        tagline: first.tagline,
        paidLimit: first.paidLimit,
        paidLimitLong: first.paidLimitLong,
        longWords: first.longWords,
        clickMonths: first.clickMonths,
        country: first.country,
      },
      variables: Object.entries(first.variables).map(([name, value]): Variable => ({ name, value })),
    }),
  );
  const setFields = (next: typeof fields): void => setTyped((before) => ({ ...before, fields: next }));
  const setVariables = (next: Variable[]): void => setTyped((before) => ({ ...before, variables: next }));
  const save = useMutation({
    mutationFn: () =>
      api("PATCH /sites/:site", {
        site: site.id,
        body: {
          ...fields,
          variables: Object.fromEntries(
            variables.filter(({ name }) => name.trim()).map(({ name, value }) => [name, value]),
          ),
          version: site.version,
        },
      }),
    onSuccess: (saved) => {
      forget();
      setSite(saved);
      notify("Saved");
    },
  });
  const errors = save.error instanceof ApiProblem ? save.error.errors : [];
  const fault = (path: string): string | undefined =>
    errors.find((error) => error.path === path || error.path.startsWith(`${path}.`))?.message;
  const number = (name: "paidLimit" | "paidLimitLong" | "longWords" | "clickMonths", label: string) => (
    <FieldRow label={label} error={fault(name)}>
      {(field) => (
        <input
          {...field}
          type="number"
          min={0}
          className="field w-28"
          value={fields[name]}
          onChange={(event) => setFields({ ...fields, [name]: Number(event.target.value) })}
        />
      )}
    </FieldRow>
  );
  const setVariable = (at: number, part: Partial<Variable>): void =>
    setVariables(variables.map((one, index) => (index === at ? { ...one, ...part } : one)));
  return (
    <form
      className="grid gap-5"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        {(["name", "tagline"] as const).map((name) => (
          <FieldRow
            key={name}
            label={name === "name" ? "Name of the site" : "Line below the name"}
            error={fault(name)}
          >
            {(field) => (
              <input
                {...field}
                className="field"
                value={fields[name]}
                onChange={(event) => setFields({ ...fields, [name]: event.target.value })}
              />
            )}
          </FieldRow>
        ))}
      </div>
      <FieldRow
        label="Country"
        hint="A phone number that is written without a country’s code is read as one of this country."
        error={fault("country")}
      >
        {(field) => (
          <select
            {...field}
            className="field w-64"
            value={fields.country}
            onChange={(event) => setFields({ ...fields, country: event.target.value })}
          >
            <option value="">none</option>
            {COUNTRIES.map(([code, name]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </select>
        )}
      </FieldRow>
      <fieldset>
        <legend className="font-semibold">Site variables</legend>
        <p className="mb-2 text-sm text-quiet">
          {"{{name}}"} in a text or an address is filled with the value when the page is delivered; a
          partner’s snippet with a placeholder of such a name is filled by itself.
        </p>
        {variables.map((variable, index) => (
          <div key={index} className="mb-1.5 flex gap-2">
            <input
              aria-label={`Name of variable ${index + 1}`}
              className="field w-48 font-mono text-sm"
              placeholder="account"
              value={variable.name}
              onChange={(event) => setVariable(index, { name: event.target.value })}
            />
            <input
              aria-label={`Value of variable ${index + 1}`}
              className="field"
              value={variable.value}
              onChange={(event) => setVariable(index, { value: event.target.value })}
            />
            <button
              type="button"
              className="action action-plain text-bad"
              onClick={() => setVariables(variables.filter((_one, at) => at !== index))}
            >
              Take out
            </button>
          </div>
        ))}
        {fault("variables") ? <p className="text-bad">{fault("variables")}</p> : null}
        <button
          type="button"
          className="action"
          onClick={() => setVariables([...variables, { name: "", value: "" }])}
        >
          Another variable
        </button>
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">Paid links a page bears</legend>
        <div className="flex flex-wrap gap-4">
          {number("paidLimit", "On a page of usual length")}
          {number("paidLimitLong", "On a long page")}
          {number("longWords", "Long from so many words on")}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1 font-semibold">Clicks</legend>
        {number("clickMonths", "Single clicks are kept for so many months")}
        <p className="mt-1 text-sm text-quiet">
          What was counted stays for good; after these months only the counts.
        </p>
      </fieldset>
      {save.isError && errors.length === 0 ? <p className="text-bad">{messageOf(save.error)}</p> : null}
      <button className="action action-main justify-self-start" disabled={save.isPending}>
        Save
      </button>
    </form>
  );
}
