import { X } from "lucide-react";
import type { SnippetAnswer } from "../../../../core/pages/page.ts";
import * as say from "../../words.ts";

/** What became of a partner's snippet: what was taken over, what was left out, which places are filled from where. */
export function SnippetReport({ report, onClose }: { report: SnippetAnswer; onClose: () => void }) {
  return (
    <section
      role="status"
      aria-label={say.theSnippet}
      className="mb-2 flex items-start gap-3 rounded border border-line bg-sheet p-2 text-sm"
    >
      <div>
        <p>{say.takenOverFromTheSnippet(report.links, report.pictures)}</p>
        {report.dropped.length > 0 ? (
          <p className="text-warn">{say.leftOut(report.dropped.join("; "))}</p>
        ) : null}
        {report.placeholders.map(({ text, variable }) => (
          <p key={text} className={variable ? "text-good" : "text-bad"}>
            <code className="font-mono text-xs">{text}</code>{" "}
            {variable ? say.isFilledFromTheSiteVariable(variable) : say.waitsForSomethingOfYoursAndNo}
          </p>
        ))}
      </div>
      <button className="action action-plain ml-auto px-1" aria-label={say.closeTheReport} onClick={onClose}>
        <X size={14} aria-hidden />
      </button>
    </section>
  );
}
