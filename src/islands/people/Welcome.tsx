import { useQuery } from "@tanstack/react-query";
import { ApiProblem } from "../../ui/client/api-problem.ts";
import { messageOf } from "../../ui/client/api.ts";
import { enter } from "../../ui/client/session.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import * as say from "./words.ts";

interface Seen {
  mail: string;
  name: string;
  isNew: boolean;
}

/** Choosing a password by a link that was handed over: for whoever is new, or lost theirs. */
export function Welcome() {
  return (
    <Screen>
      <Handed />
    </Screen>
  );
}

function Handed() {
  const seen = useQuery({ queryKey: ["welcome"], queryFn: () => take<Seen>({}), retry: false });
  return (
    <>
      <h1 className="mb-3 text-2xl font-semibold tracking-tight">
        {seen.data?.isNew ? say.comeIn : say.chooseAPassword}
      </h1>
      {seen.isError ? (
        <>
          <p role="alert" className="text-bad">
            {messageOf(seen.error)}
          </p>
          <p className="mt-3">
            <a className="text-accent underline" href="/sign-in">
              {say.signIn}
            </a>
          </p>
        </>
      ) : null}
      {seen.data ? <PasswordForm seen={seen.data} /> : null}
    </>
  );
}

function PasswordForm({ seen }: { seen: Seen }) {
  const form = useSavedForm({
    values: { name: seen.name, password: "" },
    async save({ name, password }) {
      const { mail } = await take<{ mail: string }>({ password, ...(seen.isNew ? { name } : {}) });
      await enter({ email: mail, password });
    },
    onSaved: () => location.assign("/"),
  });
  return (
    <Form
      of={form}
      label={say.chooseAPassword}
      actions={
        <SaveButton of={form} className="justify-center py-2">
          {say.saveAndSignIn}
        </SaveButton>
      }
    >
      <p>
        {say.youSignInWith} <strong>{seen.mail}</strong>.{seen.isNew ? "" : say.whereverYouAreSignedInYouAre}
      </p>
      {seen.isNew ? (
        <TextField name="name" label={say.yourName} autoComplete="name" hint={say.whatYouDoIsToldByIt} />
      ) : null}
      <TextField
        name="password"
        label={say.yourPassword}
        type="password"
        autoComplete="new-password"
        autoFocus
        hint={say.severalWordsThatNobodyWouldExpect2}
      />
    </Form>
  );
}

// The token stands behind the #, which no log sees.
async function take<T>(body: object): Promise<T> {
  const response = await fetch("/welcome/take", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ token: location.hash.slice(1), ...body }),
  });
  const answer: unknown = await response.json().catch(() => ({}));
  if (!response.ok) throw new ApiProblem(response.status, answer as object);
  return answer as T;
}
