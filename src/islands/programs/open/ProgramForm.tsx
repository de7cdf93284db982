import type { Program } from "../../../core/programs/program.ts";
import { PROGRAM_STATES } from "../../../core/programs/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { SelectField, TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { HostsField, NetworkField } from "../PartnerFields.tsx";
import { useNetworks, useSaveProgram } from "../use-programs.ts";
import { fieldOfProgram, programOf, programResolver, typedOf } from "./program-values.ts";
import { LinkFields, NoteFields, PayFields } from "./TermFields.tsx";
import * as say from "../words.ts";

/** A program's terms: who pays how much for what, and how its links are built. */
export function ProgramForm(props: {
  site: Site;
  program: Program | undefined;
  /** Called with the program as it was before it was saved. */
  onSaved: (saved: Program, before: Program | undefined) => void;
}) {
  const { site, program } = props;
  const networks = useNetworks(site).data ?? [];
  const save = useSaveProgram(site, program);
  const form = useSavedForm({
    values: typedOf(program),
    resolver: programResolver,
    save: (typed) => save.mutateAsync(programOf(typed).value!),
    onSaved: (saved) => props.onSaved(saved, program),
    fieldOf: fieldOfProgram,
    kept: { key: `program:${site.id}:${program?.id ?? "new"}`, base: String(program?.version ?? 0) },
  });
  const { isDirty } = form.formState;
  return (
    <Form
      of={form}
      needs="editor"
      label={say.terms}
      actions={
        <div className="sticky bottom-0 flex items-center gap-3 border-t border-line bg-sheet py-2">
          <SaveButton of={form} disabled={program !== undefined && !isDirty}>
            {program ? say.saveTerms : say.addProgram}
          </SaveButton>
          <span className="text-sm text-quiet">{program && !isDirty ? say.saved2 : say.notSavedYet}</span>
        </div>
      }
    >
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-3">
        <TextField name="text.name" label={say.program} />
        <NetworkField name="text.network" networks={networks} />
        <SelectField
          name="text.state"
          label={say.state}
          options={PROGRAM_STATES.map((state) => [state, state])}
        />
      </div>
      <HostsField
        site={site}
        name="domains"
        label={say.domainsThatItsLinksLeadTo}
        placeholder={say.shopExampleShopExample}
      />
      <div className="grid gap-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-2">
        <TextField name="text.siteAddress" label={say.itsSite} mono />
        <TextField name="text.signInAddress" label={say.whereYouSignIn} mono />
      </div>
      <LinkFields />
      <PayFields />
      <NoteFields site={site} />
    </Form>
  );
}
