import type { ReportResult } from "../../core/earnings/earning.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** What came of a report, or would. */
export function ReportOutcome({ result, dry }: { result: ReportResult; dry: boolean }) {
  return (
    <div aria-live="polite" className="text-sm">
      <p className="font-medium">
        {say.newChangedAsTheyWereRefused(
          dry ? say.previewNothingSavedYet : say.done,
          result.rows === 1 ? say.n1Row : say.rows(count(result.rows)),
          result.created,
          result.changed,
          result.unchanged,
          result.refused,
          result.clickRows > 0 ? say.withCountsOfClicksAlone(count(result.clickRows)) : "",
        )}
      </p>
      <p className="text-quiet">
        {say.matchedToAPageToAProgram(
          count(result.matchedToPages),
          count(result.matchedToPrograms),
          count(result.unmatched),
          result.doubtful > 0 ? say.doubtfulWithTheNameOfOneProgram(count(result.doubtful)) : "",
        )}
      </p>
      {result.refusals.length > 0 ? (
        <ul className="mt-1">
          {result.refusals.map(({ line, message }) => (
            <li key={line}>
              {say.line(line)} <span className="text-bad">{message}</span>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
