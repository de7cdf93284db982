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
    <section aria-label="Build a link" className="grid gap-2 border-b border-line pb-3">
      <Form of={form} className="grid gap-2">
        <TextField
          name="destination"
          label="Build a tracked link to"
          mono
          placeholder={`Paste a product’s address on ${program.domains[0]}`}
        />
        <div className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_1fr_auto] sm:items-end">
          <ChooseField
            name="page"
            label="It will stand on"
            none="no page of ours"
            options={pages.options}
            onType={pages.find}
          />
          <TextField name="text" label="Label" placeholder="free text, if the pattern has {text}" />
          <SaveButton of={form} disabled={form.watch("destination").trim() === ""}>
            Build and copy
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
                The report will name it <code>{built.subId}</code>.
              </>
            ) : (
              "It has no label of its own."
            )}
          </p>
          {built.warnings.map((warning) => (
            <p key={warning} className="text-sm text-warn">
              {warning}
            </p>
          ))}
          <div className="flex flex-wrap gap-2">
            <button className="action" onClick={() => void copyText(built.address)}>
              <Copy size={14} aria-hidden /> Copy
            </button>
            <button
              data-needs="editor"
              key={built.address}
              autoFocus
              className="action"
              onClick={() => setMaking(true)}
            >
              <Link2 size={14} aria-hidden /> Make it short
            </button>
            <a className="action" href={`/${site.key}/trace?of=${encodeURIComponent(built.address)}`}>
              <Footprints size={14} aria-hidden /> See whether the ID arrives
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
