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
import * as say from "../words.ts";

const MATCH_HINTS = {
  exact: "",
  prefix: say.theRestOfThePathIs1,
  wildcard: say.whatEachStandsForIs12,
  pattern: say.aRegularExpressionForTheWholePath,
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
          label={say.leadsTo}
          mono
          autoFocus={!route && start.destination === ""}
          placeholder={kind === "short" ? say.pasteTheLongAddress : say.newPathOrHttps}
          error={destination.trim() === "" ? undefined : found("destination")}
          hint={
            check?.repairs.length
              ? say.itWillLeadTo(check.repairs.join(" "), check.destination ?? "")
              : undefined
          }
        />
      )}
      {kind === "short" && match === "exact" ? null : (
        <SelectField
          name="match"
          label={say.answers}
          hint={MATCH_HINTS[match] || undefined}
          options={MATCH_KINDS.map((one) => [one, MATCH_WORDS[one]])}
        />
      )}
      <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-2">
        <ChooseField
          name="host"
          label={say.host}
          options={[
            ...asOptions(site.hosts.filter(({ role }) => role !== "former").map(({ name }) => name)),
            { value: EVERY_HOST, word: say.everyHost },
          ]}
        />
        <TextField
          name="address"
          label={say.address}
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
      <span className="text-good">{say.isFree(address.trim())}</span>
      {taken.map(({ host, takenBy }) => (
        <span key={host} className="block text-warn">
          {say.onIt(host)} {takenBy}.
        </span>
      ))}
      {check.spoken ? <span className="block">{say.sayWord(check.spoken)}</span> : null}
    </>
  );
}
