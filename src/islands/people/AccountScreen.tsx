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
import * as say from "./words.ts";

/** One's own account: name, mail address, password, and where one is signed in. */
export function AccountScreen() {
  return (
    <Screen>
      <h1 className="mb-4 text-lg font-semibold">{say.yourAccount}</h1>
      <Parts />
    </Screen>
  );
}

function Parts() {
  const account = useQuery(asking("GET /me"));
  if (account.isError) return <p className="text-bad">{messageOf(account.error)}</p>;
  if (!account.data) return <p className="text-quiet">{say.fetching}</p>;
  return (
    <div className="grid max-w-5xl grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-2">
      <section aria-labelledby="who">
        <h2 id="who" className="mb-2 font-semibold">
          {say.whoYouAre}
        </h2>
        <WhoForm account={account.data} />
      </section>
      <section aria-labelledby="password">
        <h2 id="password" className="mb-2 font-semibold">
          {say.yourPassword}
        </h2>
        <PasswordForm />
      </section>
      <section aria-labelledby="sessions" className="lg:col-span-2">
        <h2 id="sessions" className="mb-1 font-semibold">
          {say.whereYouAreSignedIn}
        </h2>
        <Sessions />
      </section>
      <section aria-labelledby="second" className="lg:col-span-2">
        <h2 id="second" className="mb-1 font-semibold">
          {say.secondFactor}
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
      notify(say.saved);
    },
  });
  const isOtherMail = form.watch("mail").trim().toLowerCase() !== account.mail;
  return (
    <Form
      of={form}
      label={say.whoYouAre}
      actions={
        <SaveButton of={form} className="justify-self-start" disabled={!form.formState.isDirty}>
          {say.save}
        </SaveButton>
      }
    >
      <TextField name="name" label={say.name} autoComplete="name" hint={say.whatYouDoIsToldByIt} />
      <TextField name="mail" label={say.mailAddress} type="email" autoComplete="email" />
      {isOtherMail ? (
        <TextField
          name="password"
          label={say.thePasswordThatYouHave}
          type="password"
          autoComplete="current-password"
          hint={say.youSignInWithTheAddressIt}
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
          ? say.yourPasswordIsChanged
          : say.yourPasswordIsChangedEnded(
              ended === 1 ? say.oneOtherSessionHas : say.otherSessionsHave(ended),
            ),
      );
    },
  });
  return (
    <Form
      of={form}
      label={say.yourPassword}
      actions={
        <SaveButton of={form} className="justify-self-start">
          {say.changeIt}
        </SaveButton>
      }
    >
      <TextField
        name="current"
        label={say.thePasswordThatYouHave}
        type="password"
        autoComplete="current-password"
      />
      <TextField
        name="next"
        label={say.theNewOne}
        type="password"
        autoComplete="new-password"
        hint={say.severalWordsThatNobodyWouldExpect}
      />
    </Form>
  );
}
