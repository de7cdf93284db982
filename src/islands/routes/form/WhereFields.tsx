import { useFormContext, useWatch } from "react-hook-form";
import { splitOwnAddress } from "../../../core/ground/fields.ts";
import type { Route, RouteCheck } from "../../../core/routes/route.ts";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { MATCH_KINDS, MATCH_WORDS } from "../../../core/routes/match/match-kind.ts";
import { SelectField, TextField } from "../../../ui/form/fields.tsx";
import { asOptions } from "../../../ui/choose/options.ts";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { EVERY_HOST, type RouteFormValues } from "./form-values.ts";

const MATCH_HINTS = {
  exact: "",
  prefix: "The rest of the path is $1 in the destination.",
  wildcard: "What each * stands for is $1, $2 and so on in the destination.",
  pattern: "A regular expression for the whole path; its groups are $1, $2 and so on.",
} as const;

/** Where a route leads, and under which address. */
export function WhereFields(props: {
  site: Site;
  kind: RouteKind;
  route?: Route;
  check?: RouteCheck;
  start: { destination: string; address: string };
}) {
  const { site, kind, route, check, start } = props;
  const { control, formState, setValue } = useFormContext<RouteFormValues>();
  const { address, destination, match } = useWatch({ control }) as RouteFormValues;
  const { errors } = formState;
  const found = (field: string): string | undefined =>
    check?.errors.find(({ path }) => path === field)?.message;
  const addressFault = errors.address?.message ?? (address.trim().length > 1 ? found("address") : undefined);
  const free = check && !addressFault && address !== route?.address && address.trim().length > 1;
  // A whole address brings its host along.
  const takeApart = (typed: string): void => {
    const { host, path } = splitOwnAddress(
      typed,
      site.hosts.map(({ name }) => name),
      match === "pattern",
    );
    if (host === undefined) return;
    setValue("host", host, { shouldDirty: true });
    setValue("address", path, { shouldDirty: true });
  };
  return (
    <>
      {kind === "gone" ? null : (
        <TextField
          name="destination"
          label="Leads to"
          mono
          autoFocus={!route && start.destination === ""}
          placeholder={kind === "short" ? "Paste the long address" : "/new/path or https://…"}
          error={destination.trim() === "" ? undefined : found("destination")}
          hint={
            check?.repairs.length
              ? `${check.repairs.join(" ")} It will lead to ${check.destination}`
              : undefined
          }
        />
      )}
      {kind === "short" && match === "exact" ? null : (
        <SelectField
          name="match"
          label="Answers"
          hint={MATCH_HINTS[match] || undefined}
          options={MATCH_KINDS.map((one) => [one, MATCH_WORDS[one]])}
        />
      )}
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-2">
        <ChooseField
          name="host"
          label="Host"
          options={[
            ...asOptions(site.hosts.filter(({ role }) => role !== "former").map(({ name }) => name)),
            { value: EVERY_HOST, word: "every host" },
          ]}
        />
        <TextField
          name="address"
          label="Address"
          mono
          autoFocus={!route && start.destination !== ""}
          error={addressFault}
          hint={free ? <Free check={check} address={address} /> : undefined}
          onBlur={(event) => takeApart(event.target.value)}
        />
      </div>
    </>
  );
}

function Free({ check, address }: { check: RouteCheck; address: string }) {
  const taken = check.hosts.filter(({ free }) => !free);
  return (
    <>
      <span className="text-good">{address.trim()} is free</span>
      {taken.map(({ host, takenBy }) => (
        <span key={host} className="block text-warn">
          On {host} it {takenBy}.
        </span>
      ))}
      {check.spoken ? <span className="block">Say: “{check.spoken}”</span> : null}
    </>
  );
}
