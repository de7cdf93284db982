import { Copy, Footprints, Link2 } from "lucide-react";
import { useState } from "react";
import type { Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import ShortLinkMaker from "../../links/paste/ShortLinkMaker.tsx";
import { usePageOptions } from "../../pages/known-pages.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { api, type Answer } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

/** Any product address of the program in, its tracked link out; one more step makes it short. */
export function BuildLink({ site, program }: { site: Site; program: Program }) {
  const [making, setMaking] = useState(false);
  const [built, setBuilt] = useState<Answer<"POST /sites/:site/programs/:id/link">>();
  const form = useSavedForm({
    values: { destination: "", page: "", text: "" },
    save: ({ destination, page, text }) =>
      api("POST /sites/:site/programs/:id/link", {
        site: site.id,
        id: program.id,
        body: { destination, ...(page ? { page } : {}), ...(text ? { text } : {}) },
      }),
    onSaved: (answer) => {
      setBuilt(answer);
      setMaking(false);
      void copyText(answer.address);
    },
    fieldOf: (path) => (path === "subId" ? "text" : path),
  });
  const pages = usePageOptions(site, "id", form.watch("page") ? [form.watch("page")] : []);
  return (
    <section aria-label={say.buildALink} className="grid gap-2 border-b border-line pb-3">
      <Form of={form} className="grid gap-2">
        <TextField
          name="destination"
          label={say.buildATrackedLinkTo}
          mono
          placeholder={say.pasteAProductsAddressOn(program.domains[0] ?? "")}
        />
        <div className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_1fr_auto] sm:items-end">
          <ChooseField
            name="page"
            label={say.itWillStandOn}
            none={say.noPageOfOurs}
            options={pages.options}
            onType={pages.find}
          />
          <TextField name="text" label={say.label2} placeholder={say.freeTextIfThePatternHasText} />
          <SaveButton of={form} disabled={form.watch("destination").trim() === ""}>
            {say.buildAndCopy}
          </SaveButton>
        </div>
      </Form>
      {built ? (
        <div className="grid gap-2 rounded bg-wash p-2" aria-live="polite">
          <p className="wrap-anywhere">
            <AddressText address={built.address} most={400} />
          </p>
          <p className="text-sm text-quiet">
            {built.subId ? (
              <>
                {say.theReportWillNameIt} <code>{built.subId}</code>.
              </>
            ) : (
              say.itHasNoLabelOfItsOwn
            )}
          </p>
          {built.warnings.map((warning) => (
            <p key={warning} className="text-sm text-warn">
              {warning}
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <button className="action" onClick={() => void copyText(built.address)}>
              <Copy size={14} aria-hidden /> {say.copy}
            </button>
            <button
              data-needs="editor"
              key={built.address}
              autoFocus
              className="action"
              onClick={() => setMaking(true)}
            >
              <Link2 size={14} aria-hidden /> {say.makeItShort}
            </button>
            <a className="action" href={`/${site.key}/trace?of=${encodeURIComponent(built.address)}`}>
              <Footprints size={14} aria-hidden /> {say.seeWhetherTheIdArrives}
            </a>
          </div>
          {making ? (
            <ShortLinkMaker
              site={site}
              destination={built.address}
              slug={built.slug}
              onDone={() => setMaking(false)}
            />
          ) : null}
        </div>
      ) : null}
    </section>
  );
}
