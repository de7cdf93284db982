import { useEffect, useRef } from "react";
import { enter, signedInAgain } from "../client/session.ts";
import { Form, SaveButton } from "../form/Form.tsx";
import { SignInFields } from "../form/SignInFields.tsx";
import { useSavedForm } from "../form/use-saved-form.ts";
import * as say from "../words.ts";

/** Asks for mail address and password over whatever the person was at. */
export default function SignInDialog() {
  const dialog = useRef<HTMLDialogElement>(null);
  const form = useSavedForm({
    values: { email: "", password: "", code: "" },
    save: enter,
    onSaved: signedInAgain,
  });
  useEffect(() => {
    const shown = dialog.current!;
    shown.showModal();
    return () => shown.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby="sign-in-again"
      className="m-auto w-full max-w-sm rounded border border-line bg-sheet p-5 text-ink shadow-xl backdrop:bg-black/30"
      onCancel={(event) => event.preventDefault()}
    >
      <Form
        of={form}
        actions={
          <SaveButton of={form} className="justify-center py-2">
            {say.signInAndGoOn}
          </SaveButton>
        }
      >
        <h2 id="sign-in-again" className="text-lg font-semibold">
          {say.yourSessionHasEnded}
        </h2>
        <p className="text-quiet">{say.signInAgainAndGoOnWhere}</p>
        <SignInFields />
      </Form>
    </dialog>
  );
}
