import { useState } from "react";
import {
  COMMISSION_FOR,
  COMMISSION_KINDS,
  PROGRAM_STATES,
  type Program,
} from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { useKeptState } from "../../../ui/client/kept-state.ts";
import { Toggle } from "../../../ui/fields/Toggle.tsx";
import { useNetworks, useSaveProgram } from "../use-programs.ts";
import { errorsByField, programOf, typedOf } from "./program-values.ts";
import { messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** A program's terms: who pays how much for what, and how its links are built. */
export function ProgramForm(props: {
  site: Site;
  program: Program | undefined;
  /** Called with the program as it was before it was saved. */
  onSaved: (saved: Program, before: Program | undefined) => void;
}) {
  const { site, program } = props;
  const [typed, setTyped, forget] = useKeptState(
    `program:${site.id}:${program?.id ?? "new"}`,
    String(program?.version ?? 0),
    () => typedOf(program),
  );
  const [tried, setTried] = useState(false);
  const networks = useNetworks(site).data ?? [];
  const save = useSaveProgram(site, program);
  const read = programOf(typed);
  const refused = save.error instanceof ApiProblem ? errorsByField(save.error.errors) : {};
  const errors = { ...refused, ...(tried ? read.errors : {}) };
  const isChanged = JSON.stringify(typed) !== JSON.stringify(typedOf(program));
  const set = (name: string, value: string): void =>
    setTyped({ ...typed, text: { ...typed.text, [name]: value } });
  const input = (
    name: string,
    label: string,
    more: React.InputHTMLAttributes<HTMLInputElement> & { hint?: string } = {},
  ) => {
    const { hint, className, ...rest } = more;
    return (
      <FieldRow label={label} error={errors[name]} hint={hint}>
        {(attributes) => (
          <input
            {...attributes}
            {...rest}
            className={`field ${className ?? ""}`}
            value={typed.text[name] ?? ""}
            onChange={(event) => set(name, event.target.value)}
          />
        )}
      </FieldRow>
    );
  };
  const choice = (
    name: string,
    label: string,
    values: readonly string[],
    word: (value: string) => string = (value) => value,
  ) => (
    <FieldRow label={label} error={errors[name]}>
      {(attributes) => (
        <select
          {...attributes}
          className="field"
          value={typed.text[name]}
          onChange={(event) => set(name, event.target.value)}
        >
          {values.map((value) => (
            <option key={value} value={value}>
              {word(value)}
            </option>
          ))}
        </select>
      )}
    </FieldRow>
  );
  const lines = (
    name: string,
    label: string,
    rows: number,
    more: { hint?: string; mono?: boolean; placeholder?: string } = {},
  ) => (
    <FieldRow label={label} error={errors[name]} hint={more.hint}>
      {(attributes) => (
        <textarea
          {...attributes}
          rows={rows}
          placeholder={more.placeholder}
          className={`field ${more.mono ? "font-mono text-sm" : ""}`}
          value={typed.text[name] ?? ""}
          onChange={(event) => set(name, event.target.value)}
        />
      )}
    </FieldRow>
  );
  return (
    <form
      aria-label="Terms"
      className="grid gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setTried(true);
        if (read.value)
          save.mutate(read.value, {
            onSuccess: (saved) => {
              forget();
              props.onSaved(saved, program);
            },
          });
      }}
    >
      <div className="grid gap-3 sm:grid-cols-3">
        {input("name", "Program")}
        {input("network", "Network", { list: "known-networks" })}
        {choice("state", "State", PROGRAM_STATES)}
      </div>
      <datalist id="known-networks">
        {networks.map(({ id, name }) => (
          <option key={id} value={name} />
        ))}
      </datalist>
      {lines("domains", "Domains that its links lead to", 2, {
        mono: true,
        placeholder: "shop.example\n*.shop.example",
      })}
      <div className="grid gap-3 sm:grid-cols-2">
        {input("siteAddress", "Its site", { className: "font-mono text-sm" })}
        {input("signInAddress", "Where you sign in", { className: "font-mono text-sm" })}
      </div>
      <fieldset className="grid gap-3 border-t border-line pt-3">
        <legend className="sr-only">How its links are built</legend>
        {input("template", "Link template", {
          className: "font-mono text-sm",
          placeholder: "https://go.network.example/c/{id}?to={destination}&sub={sub}",
          hint: "{id} is your account, {destination} the page, {sub} the label; or {destination}?partner={id} where they stand behind the page’s own address.",
        })}
        <div className="grid gap-3 sm:grid-cols-[1fr_1.4fr_6rem]">
          {input("trackingId", "Tracking ID", { className: "font-mono text-sm" })}
          {input("subIdPattern", "Sub-IDs are made as", {
            className: "font-mono text-sm",
            hint: "{site} {page} {position} {text}",
          })}
          {input("subIdLimit", "At most", { inputMode: "numeric" })}
        </div>
        {input("slugPattern", "Short links are named", {
          className: "font-mono text-sm",
          hint: "{program} {page} {product}",
        })}
      </fieldset>
      <fieldset className="grid gap-3 border-t border-line pt-3">
        <legend className="sr-only">What it pays</legend>
        <div className="grid gap-3 sm:grid-cols-5">
          {input("commission", "Pays", { inputMode: "decimal" })}
          {choice("commissionKind", "as", COMMISSION_KINDS, (kind) =>
            kind === "percent" ? "percent" : "a sum",
          )}
          {choice("commissionFor", "for a", COMMISSION_FOR)}
          {input("currency", "Currency", { maxLength: 3 })}
          {input("cookieDays", "Cookie, days", { inputMode: "numeric" })}
        </div>
        <div className="grid gap-3 sm:grid-cols-4">
          {input("payoutThreshold", "Pays out from", { inputMode: "decimal" })}
          {input("payoutDay", "On day of the month", { inputMode: "numeric" })}
          {input("payoutMethod", "By")}
          {input("paidUntil", "Paid out up to", { type: "date" })}
        </div>
        <div className="grid gap-3 sm:grid-cols-3">
          {input("epc7", "Their EPC, 7 days", { inputMode: "decimal" })}
          {input("epc30", "30 days", { inputMode: "decimal" })}
          {input("epc90", "90 days", { inputMode: "decimal" })}
        </div>
        <p className="flex items-center gap-2 text-sm">
          <Toggle
            label="Pays by the referrer"
            on={typed.needsReferrer}
            disabled={false}
            onChange={(needsReferrer) => setTyped({ ...typed, needsReferrer })}
          />
          Pays by the referrer: noreferrer would cost the commission
        </p>
      </fieldset>
      <fieldset className="grid gap-3 border-t border-line pt-3">
        <legend className="sr-only">Notes</legend>
        <div className="grid gap-3 sm:grid-cols-[1fr_10rem_10rem]">
          {input("nextStep", "Next step")}
          {input("nextStepDue", "on", { type: "date" })}
          {input("termsReview", "Look at terms again", { type: "date" })}
        </div>
        {input("tags", "Tags", { placeholder: "with commas between them" })}
        {lines("reportNames", "Called in reports", 1, { placeholder: "besides its name, one a line" })}
        {lines("contacts", "Contacts", 2)}
        {lines("notes", "Notes", 3)}
      </fieldset>
      {save.isError ? (
        <p role="alert" className="text-bad">
          {Object.keys(refused).length > 0 ? "Something above is to be put right." : messageOf(save.error)}
        </p>
      ) : null}
      <div className="sticky bottom-0 flex items-center gap-3 border-t border-line bg-sheet py-2">
        <button
          className="action action-main"
          disabled={save.isPending || (program !== undefined && !isChanged)}
        >
          {program ? "Save terms" : "Add program"}
        </button>
        <span className="text-sm text-quiet">{program && !isChanged ? "Saved." : "Not saved yet."}</span>
      </div>
    </form>
  );
}
