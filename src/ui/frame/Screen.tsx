import { Suspense, type ReactNode } from "react";
import { Answers } from "./Answers.tsx";
import { ScreenTakenOver } from "./later.tsx";
import { tellTimeZone } from "./time-zone.ts";

/** What every screen stands in: the shared answers, and what is drawn here when the server could not draw it. */
export function Screen({ children }: { children: ReactNode }) {
  return (
    <Answers>
      <Suspense fallback={null}>
        <ScreenTakenOver onTakenOver={takenOver}>{children}</ScreenTakenOver>
      </Suspense>
    </Answers>
  );
}

// What the server drew is busy until it can be worked with.
function takenOver(): void {
  document.querySelector("main")?.removeAttribute("aria-busy");
  tellTimeZone();
}
