import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { FieldRow } from "../fields/FieldRow.tsx";
import { isSignedOut, listenToSession, signedInAgain, signIn } from "../client/session.ts";

/** Asks somebody whose session has ended to sign in again, in place: what they were at waits behind it, and goes on. */
export function SignInAgain() {
  const isAsking = useSyncExternalStore(listenToSession, isSignedOut, () => false);
  return isAsking ? <Asking /> : null;
}

function Asking() {
  const dialog = useRef<HTMLDialogElement>(null);
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [refusal, setRefusal] = useState<string>();
  useEffect(() => {
    const shown = dialog.current!;
    shown.showModal();
    return () => shown.close();
  }, []);
  const enter = async (event: { preventDefault(): void }): Promise<void> => {
    event.preventDefault();
    setRefusal(undefined);
    try {
      const refused = await signIn({ email, password });
      if (refused === undefined) signedInAgain();
      else setRefusal(refused);
    } catch {
      setRefusal("The workspace cannot be reached. What you typed waits here.");
    }
  };
  return (
    <dialog
      ref={dialog}
      aria-labelledby="sign-in-again"
      className="m-auto w-full max-w-sm rounded border border-line bg-sheet p-5 text-ink shadow-xl backdrop:bg-black/30"
      onCancel={(event) => event.preventDefault()}
    >
      <form className="grid gap-3" onSubmit={(event) => void enter(event)} noValidate>
        <h2 id="sign-in-again" className="text-lg font-semibold">
          Your session has ended
        </h2>
        <p className="text-quiet">Sign in again, and go on where you are. Nothing that you typed is lost.</p>
        <FieldRow label="Mail address">
          {(attributes) => (
            <input
              {...attributes}
              type="email"
              autoComplete="username"
              autoFocus
              className="field py-2"
              value={email}
              onChange={(event) => setEmail(event.target.value)}
            />
          )}
        </FieldRow>
        <FieldRow label="Password">
          {(attributes) => (
            <input
              {...attributes}
              type="password"
              autoComplete="current-password"
              className="field py-2"
              value={password}
              onChange={(event) => setPassword(event.target.value)}
            />
          )}
        </FieldRow>
        {refusal ? (
          <p role="alert" className="text-bad">
            {refusal}
          </p>
        ) : null}
        <button className="action action-main justify-center py-2">Sign in and go on</button>
      </form>
    </dialog>
  );
}
