import { Suspense, useEffect, type ReactNode } from "react";
import { Answers } from "./Answers.tsx";
import { tellTimeZone } from "./time-zone.ts";

/** What every screen stands in: the shared answers, and what is drawn here when the server could not draw it. */
export function Screen({ children }: { children: ReactNode }) {
  return (
    <Answers>
      <Suspense fallback={null}>
        <TakenOver>{children}</TakenOver>
      </Suspense>
    </Answers>
  );
}

// What the server drew is busy until it can be worked with.
function TakenOver({ children }: { children: ReactNode }) {
  useEffect(() => {
    document.querySelector("main")?.removeAttribute("aria-busy");
    tellTimeZone();
  }, []);
  return children;
}
