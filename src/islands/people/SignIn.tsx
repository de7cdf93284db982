import { enter } from "../../ui/client/session.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { SignInFields } from "../../ui/form/SignInFields.tsx";
import { ForgottenPassword } from "./ForgottenPassword.tsx";
import { schemaLater } from "../../ui/form/schema-later.ts";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

const checked = schemaLater(async () => (await import("../../core/people/person.ts")).signInSchema);

/** The way in. */
export function SignIn({ to, hasMail }: { to: string; hasMail: boolean }) {
  const form = useSavedForm({
    values: { email: "", password: "", code: "" },
    resolver: checked,
    save: enter,
    onSaved: () => location.assign(to),
  });
  return (
    <div className="w-full max-w-sm">
      <h1 className="text-3xl font-semibold tracking-tight">{say.mapRope}</h1>
      <p className="mt-1 mb-6 text-quiet">{say.everyWayOutOfYourSiteMade}</p>
      <Form
        of={form}
        actions={
          <SaveButton of={form} className="justify-center py-2">
            {form.isSaving ? say.signingIn : say.signIn}
          </SaveButton>
        }
      >
        <SignInFields />
      </Form>
      {hasMail ? <ForgottenPassword /> : null}
    </div>
  );
}
