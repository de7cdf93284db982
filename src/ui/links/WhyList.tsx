/** Who decided something of a link, whom it overridden, and what would change it. */
import * as say from "../words.ts";
export interface Why {
  attribute: string;
  value: string;
  by: string;
  matched?: string;
  overridden: readonly string[];
  change: string;
}

/** Why a link is delivered as it is: each decision with its reason; what would change it opens below. */
export function WhyList({ trace }: { trace: readonly Why[] }) {
  if (trace.length === 0) return <p className="text-xs text-quiet">{say.noRuleSpeaksAboutThisLinkAnd}</p>;
  return (
    <ul aria-label={say.why} className="grid gap-0.5 text-xs text-quiet">
      {trace.map(({ attribute, value, by, matched, overridden, change }) => (
        <li key={attribute}>
          <details>
            <summary className="marker:text-line">
              <span className="font-mono text-ink">
                {attribute} {value}
              </span>{" "}
              {by}
              {matched ? ` (${matched})` : ""}
              {overridden.length > 0 ? say.aheadOf(overridden.join(", ")) : ""}
            </summary>
            <p className="pb-1 pl-4">{change}</p>
          </details>
        </li>
      ))}
    </ul>
  );
}
