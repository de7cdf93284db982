import { useState } from "react";
import { askForReset } from "../../ui/client/session.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { schemaLater } from "../../ui/form/schema-later.ts";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

const checked = schemaLater(async () => (await import("../../core/people/person.ts")).resetInputSchema);

/** Asks for a mail with a link for a new password. */
export function ForgottenPassword() {
  const [isOpen, setOpen] = useState(false);
  return (
    <details className="mt-6 text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer text-quiet">{say.thePasswordIsLost}</summary>
      {isOpen ? <AskForLink /> : null}
    </details>
  );
}

function AskForLink() {
  const [askedFor, setAskedFor] = useState<string>();
  const form = useSavedForm({
    values: { mail: "" },
    resolver: checked,
    save: ({ mail }) => askForReset(mail),
    onSaved: () => setAskedFor(form.getValues("mail")),
  });
  if (askedFor !== undefined)
    return (
      <p role="status" className="mt-2">
        {say.ifSomebodyHereHasTheAddressA(askedFor)}
      </p>
    );
  return (
    <Form of={form} label={say.aNewPassword} className="mt-2 flex flex-wrap items-start gap-2">
      <TextField name="mail" label={say.yourMailAddress} type="email" className="w-64" />
      <SaveButton of={form} isPlain className="mt-6">
        {say.sendMeALink}
      </SaveButton>
    </Form>
  );
}
