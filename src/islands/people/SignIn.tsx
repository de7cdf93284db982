import { zodResolver } from "@hookform/resolvers/zod";
import { signInSchema } from "../../core/people/person.ts";
import { enter } from "../../ui/client/session.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { SignInFields } from "../../ui/form/SignInFields.tsx";
import { ForgottenPassword } from "./ForgottenPassword.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";

/** The way in. */
export function SignIn({ to, hasMail }: { to: string; hasMail: boolean }) {
  const form = useSavedForm({
    values: { email: "", password: "", code: "" },
    resolver: zodResolver(signInSchema),
    save: enter,
    onSaved: () => location.assign(to),
  });
  return (
    <div className="w-full max-w-sm">
      <h1 className="text-3xl font-semibold tracking-tight">Map Rope</h1>
      <p className="mt-1 mb-6 text-quiet">Every way out of your site, made, marked and watched.</p>
      <Form
        of={form}
        actions={
          <SaveButton of={form} className="justify-center py-2">
            {form.isSaving ? "Signing in…" : "Sign in"}
          </SaveButton>
        }
      >
        <SignInFields />
      </Form>
      {hasMail ? <ForgottenPassword /> : null}
    </div>
  );
}
