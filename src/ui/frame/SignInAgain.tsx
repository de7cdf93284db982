import { lazy, Suspense, useEffect, useSyncExternalStore } from "react";
import { isSignedOut, listenToSession } from "../client/session.ts";

const fetched = () => import("./SignInDialog.tsx");
const SignInDialog = lazy(fetched);
/** It is fetched before it is needed: by then another version may be running. */
const FETCHED_AFTER_MS = 3_000;

/** Asks somebody whose session has ended to sign in again, in place: what they were at waits behind it, and goes on. */
export function SignInAgain() {
  const isAsking = useSyncExternalStore(listenToSession, isSignedOut, () => false);
  useEffect(() => {
    const timer = setTimeout(() => void fetched().catch(() => undefined), FETCHED_AFTER_MS); // asked for again when it is needed
    return () => clearTimeout(timer);
  }, []);
  if (!isAsking) return null;
  return (
    <Suspense>
      <SignInDialog />
    </Suspense>
  );
}
