import { useQuery } from "@tanstack/react-query";
import type { Account } from "../../core/people/person.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { Tokens } from "../sites/Tokens.tsx";
import { SecondFactor } from "./SecondFactor.tsx";
import { Sessions } from "./Sessions.tsx";

/** One's own account: name, mail address, password, and where one is signed in. */
export function AccountScreen() {
  return (
    <Screen>
      <h1 className="mb-4 text-lg font-semibold">Your account</h1>
      <Parts />
    </Screen>
  );
}

function Parts() {
  const account = useQuery(asking("GET /me"));
  if (account.isError) return <p className="text-bad">{messageOf(account.error)}</p>;
  if (!account.data) return <p className="text-quiet">Fetching…</p>;
  return (
    <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-2">
      <section aria-labelledby="who">
        <h2 id="who" className="mb-2 font-semibold">
          Who you are
        </h2>
        <WhoForm account={account.data} />
      </section>
      <section aria-labelledby="password">
        <h2 id="password" className="mb-2 font-semibold">
          Your password
        </h2>
        <PasswordForm />
      </section>
      <section aria-labelledby="sessions" className="lg:col-span-2">
        <h2 id="sessions" className="mb-1 font-semibold">
          Where you are signed in
        </h2>
        <Sessions />
      </section>
      <section aria-labelledby="second" className="lg:col-span-2">
        <h2 id="second" className="mb-1 font-semibold">
          Second factor
        </h2>
        <SecondFactor />
      </section>
      <div className="lg:col-span-2">
        <Tokens own />
      </div>
    </div>
  );
}

function WhoForm({ account }: { account: Account }) {
  const form = useSavedForm({
    values: { name: account.name, mail: account.mail, password: "" },
    save: ({ name, mail, password }) =>
      api("PATCH /me", { body: { name, mail, ...(password ? { password } : {}) } }),
    onSaved: ({ name, mail }, { reset }) => {
      reset({ name, mail, password: "" });
      void refresh("GET /me");
      notify("Saved");
    },
  });
  const isOtherMail = form.watch("mail").trim().toLowerCase() !== account.mail;
  return (
    <Form
      of={form}
      label="Who you are"
      actions={
        <SaveButton of={form} className="justify-self-start" disabled={!form.formState.isDirty}>
          Save
        </SaveButton>
      }
    >
      <TextField name="name" label="Name" autoComplete="name" hint="What you do is told by it." />
      <TextField name="mail" label="Mail address" type="email" autoComplete="email" />
      {isOtherMail ? (
        <TextField
          name="password"
          label="The password that you have"
          type="password"
          autoComplete="current-password"
          hint="You sign in with the address: it is asked whether it is really you."
        />
      ) : null}
    </Form>
  );
}

const NOTHING = { current: "", next: "" };

function PasswordForm() {
  const form = useSavedForm({
    values: NOTHING,
    save: (body) => api("PUT /me/password", { body }),
    onSaved: ({ ended }, { reset }) => {
      reset(NOTHING);
      void refresh("GET /me/sessions");
      notify(
        ended === 0
          ? "Your password is changed."
          : `Your password is changed; ${ended === 1 ? "one other session has" : `${ended} other sessions have`} ended.`,
      );
    },
  });
  return (
    <Form
      of={form}
      label="Your password"
      actions={
        <SaveButton of={form} className="justify-self-start">
          Change it
        </SaveButton>
      }
    >
      <TextField
        name="current"
        label="The password that you have"
        type="password"
        autoComplete="current-password"
      />
      <TextField
        name="next"
        label="The new one"
        type="password"
        autoComplete="new-password"
        hint="Several words that nobody would expect together are hard to guess. Everywhere else you are signed out."
      />
    </Form>
  );
}
