import { useMutation } from "@tanstack/react-query";
import type { Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { refreshPrograms } from "../use-programs.ts";
import * as say from "../words.ts";

/** The name and password of an account, written anew; what is kept is never shown here. */
export function CredentialsForm(props: { site: Site; program: Program; onDone: () => void }) {
  const { site, program, onDone } = props;
  const at = { site: site.id, id: program.id };
  const done = (text: string): void => {
    notify(text);
    onDone();
    void refreshPrograms();
  };
  const form = useSavedForm({
    values: { name: "", password: "" },
    save: (body) => api("PUT /sites/:site/programs/:id/credentials", { ...at, body }),
    onSaved: () => done(say.keptEncrypted),
  });
  const drop = useMutation({
    mutationFn: () => api("DELETE /sites/:site/programs/:id/credentials", at),
    onSuccess: () => done(say.forgotten),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const [name, password] = form.watch(["name", "password"]);
  return (
    <Form
      of={form}
      needs="editor"
      className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-[1fr_1fr_auto] sm:items-end"
    >
      <TextField name="name" label={say.nameToSignInWith} autoComplete="off" />
      <TextField name="password" label={say.password} type="password" autoComplete="new-password" />
      <div className="flex gap-2">
        <SaveButton of={form} disabled={name === "" && password === ""}>
          {say.keep}
        </SaveButton>
        {program.hasCredentials ? (
          <button type="button" className="action action-plain text-bad" onClick={() => drop.mutate()}>
            {say.forget}
          </button>
        ) : null}
      </div>
    </Form>
  );
}
