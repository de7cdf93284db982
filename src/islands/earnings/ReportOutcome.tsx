import type { ReportResult } from "../../core/earnings/earning.ts";
import { count } from "../../ui/format/format.ts";

/** What came of a report, or would. */
export function ReportOutcome({ result, dry }: { result: ReportResult; dry: boolean }) {
  return (
    <div aria-live="polite" className="text-sm">
      <p className="font-medium">
        {dry ? "Preview, nothing saved yet: " : "Done: "}
        {result.rows === 1 ? "1 row" : `${count(result.rows)} rows`}, {result.created} new, {result.changed}{" "}
        changed, {result.unchanged} as they were, {result.refused} refused
        {result.clickRows > 0 ? `; ${count(result.clickRows)} with counts of clicks alone` : ""}.
      </p>
      <p className="text-quiet">
        Matched: {count(result.matchedToPages)} to a page, {count(result.matchedToPrograms)} to a program,{" "}
        {count(result.unmatched)} to nothing known
        {result.doubtful > 0
          ? `, ${count(result.doubtful)} doubtful (with the name of one program and a sub-ID that was issued for another)`
          : ""}
        .
      </p>
      {result.refusals.length > 0 ? (
        <ul className="mt-1">
          {result.refusals.map(({ line, message }) => (
            <li key={line}>
              Line {line}: <span className="text-bad">{message}</span>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
