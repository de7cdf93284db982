import { useEffect, useSyncExternalStore } from "react";
import { isSignedOut, listenToSession } from "../client/session.ts";
import { later } from "./later.tsx";

const SignInDialog = later(async () => (await import("./SignInDialog.tsx")).default);
/** It is fetched before it is needed: by then another version may be running. */
const FETCHED_AFTER_MS = 3_000;

/** Asks somebody whose session has ended to sign in again, in place: what they were at waits behind it, and goes on. */
export function SignInAgain() {
  const isAsking = useSyncExternalStore(listenToSession, isSignedOut, () => false);
  useEffect(() => {
    const timer = setTimeout(SignInDialog.fetchSoon, FETCHED_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  return isAsking ? <SignInDialog /> : null;
}
