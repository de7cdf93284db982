import type { ProgramFigures } from "../../core/programs/program.ts";
import { setAddressState } from "../../ui/client/url-state.ts";
import { isDue } from "./directory/columns.tsx";
import * as say from "./words.ts";

/** What waits for somebody: steps whose day has come, and terms to look at again. */
export function Reminders({ programs }: { programs: readonly ProgramFigures[] }) {
  const due = programs.flatMap(({ id, name, nextStep, nextStepDue, termsReview }) => [
    ...(nextStepDue && isDue(nextStepDue) ? [{ id, text: `${name}: ${nextStep || say.itsNextStep}` }] : []),
    ...(termsReview && isDue(termsReview) ? [{ id, text: say.lookAtItsTermsAgain(name) }] : []),
  ]);
  if (due.length === 0) return null;
  return (
    <ul
      aria-label={say.due}
      className="mb-3 flex flex-wrap gap-x-5 gap-y-1 rounded bg-wash px-3 py-2 text-sm"
    >
      {due.map(({ id, text }) => (
        <li key={text}>
          <button className="text-left hover:underline" onClick={() => setAddressState({ open: id })}>
            <span className="font-medium text-warn">{say.due}</span> {text}
          </button>
        </li>
      ))}
    </ul>
  );
}
