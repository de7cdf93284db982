import { COMMISSION_FOR, COMMISSION_KINDS } from "../../../core/programs/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { asOptions } from "../../../ui/choose/options.ts";
import { ChooseManyField } from "../../../ui/form/choose-fields.tsx";
import { DayField, AreaField, SelectField, TextField, ToggleField } from "../../../ui/form/fields.tsx";
import { usePrograms } from "../use-programs.ts";
import * as say from "../words.ts";

/** How a program's links are built. */
export function LinkFields() {
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">{say.howItsLinksAreBuilt}</legend>
      <TextField
        name="text.template"
        label={say.linkTemplate}
        mono
        placeholder={say.httpsGoNetworkExampleCIdTo}
        hint={say.idIsYourAccountDestinationThePage}
      />
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_1.4fr_6rem]">
        <TextField name="text.trackingId" label={say.trackingId} mono />
        <TextField
          name="text.subIdPattern"
          label={say.subIdsAreMadeAs}
          mono
          hint={say.sitePagePositionText}
        />
        <TextField name="text.subIdLimit" label={say.atMost} inputMode="numeric" />
      </div>
      <TextField name="text.slugPattern" label={say.shortLinksAreNamed} mono hint={say.programPageProduct} />
    </fieldset>
  );
}

/** What a program pays, for what, and when. */
export function PayFields() {
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">{say.whatItPays}</legend>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-5">
        <TextField name="text.commission" label={say.pays} inputMode="decimal" />
        <SelectField
          name="text.commissionKind"
          label={say.commissionIn}
          options={COMMISSION_KINDS.map((kind) => [kind, kind === "percent" ? "percent" : "a sum"])}
        />
        <SelectField
          name="text.commissionFor"
          label={say.paidForA}
          options={COMMISSION_FOR.map((one) => [one, one])}
        />
        <TextField name="text.currency" label={say.currency} maxLength={3} />
        <TextField name="text.cookieDays" label={say.cookieDays} inputMode="numeric" />
      </div>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-4">
        <TextField name="text.payoutThreshold" label={say.paysOutFrom} inputMode="decimal" />
        <TextField name="text.payoutDay" label={say.onDayOfTheMonth} inputMode="numeric" />
        <TextField name="text.payoutMethod" label={say.payoutMethod} />
        <DayField name="text.paidUntil" label={say.paidOutUntil} />
      </div>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-3">
        <TextField name="text.epc7" label={say.theirEpc7Days} inputMode="decimal" />
        <TextField name="text.epc30" label={say.n30Days} inputMode="decimal" />
        <TextField name="text.epc90" label={say.n90Days} inputMode="decimal" />
      </div>
      <ToggleField name="needsReferrer" label={say.paysByTheReferrer}>
        {say.paysByTheReferrerNoreferrerWouldCost}
      </ToggleField>
      <ToggleField name="tracksOnTheWay" label={say.tracksOnTheWay}>
        {say.tracksOnTheWayMeans}
      </ToggleField>
    </fieldset>
  );
}

/** What is to be done next, and what is noted of it. */
export function NoteFields({ site }: { site: Site }) {
  const tags = asOptions((usePrograms(site).data ?? []).flatMap((program) => program.tags));
  return (
    <fieldset className="grid gap-3 border-t border-line pt-3">
      <legend className="sr-only">{say.notes}</legend>
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_10rem_10rem]">
        <TextField name="text.nextStep" label={say.nextStep} />
        <DayField name="text.nextStepDue" label={say.on2} />
        <DayField name="text.termsReview" label={say.lookAtTermsAgain} />
      </div>
      <ChooseManyField name="tags" label={say.tags} isFree options={tags} />
      <AreaField
        name="text.reportNames"
        label={say.namesInReports}
        rows={1}
        placeholder={say.besidesItsNameOneALine}
      />
      <AreaField name="text.contacts" label={say.contacts} rows={2} />
      <AreaField name="text.notes" label={say.notes} rows={3} />
    </fieldset>
  );
}
