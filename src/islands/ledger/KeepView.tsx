import type { Site } from "../../core/sites/site.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { TextField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { notify } from "../../ui/notices/notices.ts";
import { keepView } from "./keep-view.ts";
import * as say from "./words.ts";

/** Gives the ledger as it is narrowed now a name. */
export default function KeepView({ site }: { site: Site }) {
  const form = useSavedForm({
    values: { name: "" },
    save: ({ name }) => {
      const query = new URLSearchParams(location.search);
      query.delete("open");
      return keepView(site, { name, query: query.toString() });
    },
    onSaved: (_, { getValues, reset }) => {
      notify(say.thisViewIsSavedAs(getValues("name")));
      reset();
    },
  });
  return (
    <Form of={form} needs="editor" className="flex flex-wrap items-end gap-1 border-t border-line pt-2">
      <div className="grow">
        <TextField name="name" label={say.nameForThisView} className="py-0.5" />
      </div>
      <SaveButton of={form} isPlain className="py-0.5" disabled={!form.watch("name").trim()}>
        {say.keep}
      </SaveButton>
    </Form>
  );
}
