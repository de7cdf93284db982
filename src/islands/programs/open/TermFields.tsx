import { COMMISSION_FOR, COMMISSION_KINDS } from "../../../core/programs/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { asOptions } from "../../../ui/choose/options.ts";
import { ChooseManyField } from "../../../ui/form/choose-fields.tsx";
import { AreaField, SelectField, TextField, ToggleField } from "../../../ui/form/fields.tsx";
import { usePrograms } from "../use-programs.ts";

/** How a program's links are built. */
export function LinkFields() {
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">How its links are built</legend>
      <TextField
        name="text.template"
        label="Link template"
        mono
        placeholder={"https://go.network.example/c/{id}?to={destination}&sub={sub}"}
        hint={
          "{id} is your account, {destination} the page, {sub} the label; or {destination}?partner={id} where they stand behind the page’s own address."
        }
      />
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_1.4fr_6rem]">
        <TextField name="text.trackingId" label="Tracking ID" mono />
        <TextField
          name="text.subIdPattern"
          label="Sub-IDs are made as"
          mono
          hint={"{site} {page} {position} {text}"}
        />
        <TextField name="text.subIdLimit" label="At most" inputMode="numeric" />
      </div>
      <TextField
        name="text.slugPattern"
        label="Short links are named"
        mono
        hint={"{program} {page} {product}"}
      />
    </fieldset>
  );
}

/** What a program pays, for what, and when. */
export function PayFields() {
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">What it pays</legend>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-5">
        <TextField name="text.commission" label="Pays" inputMode="decimal" />
        <SelectField
          name="text.commissionKind"
          label="Commission in"
          options={COMMISSION_KINDS.map((kind) => [kind, kind === "percent" ? "percent" : "a sum"])}
        />
        <SelectField
          name="text.commissionFor"
          label="Paid for a"
          options={COMMISSION_FOR.map((one) => [one, one])}
        />
        <TextField name="text.currency" label="Currency" maxLength={3} />
        <TextField name="text.cookieDays" label="Cookie, days" inputMode="numeric" />
      </div>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-4">
        <TextField name="text.payoutThreshold" label="Pays out from" inputMode="decimal" />
        <TextField name="text.payoutDay" label="On day of the month" inputMode="numeric" />
        <TextField name="text.payoutMethod" label="Payout method" />
        <TextField name="text.paidUntil" label="Paid out until" type="date" />
      </div>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-3">
        <TextField name="text.epc7" label="Their EPC, 7 days" inputMode="decimal" />
        <TextField name="text.epc30" label="30 days" inputMode="decimal" />
        <TextField name="text.epc90" label="90 days" inputMode="decimal" />
      </div>
      <ToggleField name="needsReferrer" label="Pays by the referrer">
        Pays by the referrer: noreferrer would cost the commission
      </ToggleField>
    </fieldset>
  );
}

/** What is to be done next, and what is noted of it. */
export function NoteFields({ site }: { site: Site }) {
  const tags = asOptions((usePrograms(site).data ?? []).flatMap((program) => program.tags));
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">Notes</legend>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_10rem_10rem]">
        <TextField name="text.nextStep" label="Next step" />
        <TextField name="text.nextStepDue" label="on" type="date" />
        <TextField name="text.termsReview" label="Look at terms again" type="date" />
      </div>
      <ChooseManyField name="tags" label="Tags" isFree options={tags} />
      <AreaField
        name="text.reportNames"
        label="Names in reports"
        rows={1}
        placeholder="besides its name, one a line"
      />
      <AreaField name="text.contacts" label="Contacts" rows={2} />
      <AreaField name="text.notes" label="Notes" rows={3} />
    </fieldset>
  );
}
