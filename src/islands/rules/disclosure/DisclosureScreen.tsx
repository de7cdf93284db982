import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { AreaField, ToggleField } from "../../../ui/form/fields.tsx";
import { schemaLater } from "../../../ui/form/schema-later.ts";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { api, ApiProblem } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

const checked = schemaLater(async () => (await import("../../../core/programs/partner.ts")).disclosureSchema);

/** What readers are told of paid links. */
export function DisclosureScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="rules/disclosure" />
      <Disclosure first={site} />
    </Screen>
  );
}

function Disclosure({ first }: { first: Site }) {
  const [site, setSite] = useState(first);
  const form = useSavedForm({
    values: first.disclosure,
    resolver: checked,
    isLive: true,
    save: (disclosure) =>
      api("PATCH /sites/:site", { site: site.id, body: { version: site.version, disclosure } }),
    onSaved: (saved, { reset }) => {
      setSite(saved);
      reset(saved.disclosure);
      notify(say.savedLedgerAndDeliveredPagesFollow);
    },
    onRefused: (error) => {
      if (error instanceof ApiProblem && error.status === 409) setSite(error.current as Site);
    },
    fieldOf: (path) => path.replace(/^disclosure\./, ""),
    kept: { key: `disclosure:${first.id}`, base: String(site.version) },
  });
  const { isDirty } = form.formState;
  return (
    <Form
      of={form}
      needs="editor"
      className="grid max-w-3xl gap-4"
      actions={
        <div className="flex items-center gap-3">
          <SaveButton of={form} disabled={!isDirty}>
            {say.save}
          </SaveButton>
          <span className="text-sm text-quiet">{isDirty ? say.keptInThisBrowserNotSavedYet : say.saved}</span>
        </div>
      }
    >
      <p className="text-quiet">
        {say.aLinkCountsAsPaidWhenIt}{" "}
        <a className="text-accent underline" href={`/${site.key}/programs`}>
          {say.programs}
        </a>
        {say.throughAShortLinkTooRulesCan}
      </p>
      <AreaField
        name="text"
        label={say.whatReadersAreTold}
        rows={2}
        hint={say.thePageCheckLooksForTheseWords}
      />
      <ToggleField name="place" label={say.placedByItself}>
        {say.deliveredPagesThatCarryPaidLinksSay}
      </ToggleField>
    </Form>
  );
}
