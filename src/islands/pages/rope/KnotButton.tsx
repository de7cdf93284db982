import type { Finding, Fix } from "../../../core/pages/check/finding.ts";
import { addressParts } from "../../../core/address/display.ts";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import type { RopeLink } from "./rope-link.ts";
import * as say from "../words.ts";

/** One knot with its words: kind, host, what is delivered, and what is wrong with it. */
export function KnotButton(props: {
  link: RopeLink;
  current: boolean;
  onChoose: () => void;
  onFix: (fix: Fix) => void;
}) {
  const { link, current } = props;
  const { delivered } = link;
  const { host, after } = addressParts(link.href);
  const attributes = delivered
    ? [delivered.resolved.target === "_blank" ? say.newTab : "", ...delivered.resolved.rel]
        .filter(Boolean)
        .join(" ")
    : "…";
  return (
    <div className={`rounded ${current ? "bg-wash" : "hover:bg-sheet"}`}>
      <button
        onClick={props.onChoose}
        aria-current={current || undefined}
        className="group flex w-full items-start gap-2 pr-2 text-left"
      >
        <span className="grid size-6 shrink-0 place-items-center rounded-full bg-paper">
          {/* Where it leads is not guessed while it is being looked up. */}
          {delivered ? (
            <Knot kind={delivered.kind} size={19} />
          ) : (
            <span className="size-2 rounded-full bg-line" />
          )}
        </span>
        <span className="min-w-0 grow pt-0.5 text-sm leading-snug">
          <span className="block truncate font-medium">{link.words || say.noWords}</span>
          <span className="block truncate text-quiet">
            {delivered ? KIND_WORD[delivered.kind] : ""}{" "}
            {delivered && delivered.programs.length > 0 ? (
              <span className="text-ink">{delivered.programs.join(", ")} </span>
            ) : null}
            <span className="font-mono text-xs">{host || after}</span>
          </span>
          {attributes ? (
            <span
              className="block truncate font-mono text-xs text-ink"
              title={
                delivered &&
                delivered.resolved.trace
                  .map(({ attribute, value, by }) => `${attribute} ${value}: ${by}`)
                  .join("\n")
              }
            >
              {attributes}
            </span>
          ) : null}
          {link.override ? <span className="text-xs text-accent">{say.setByHand(link.override)}</span> : null}
        </span>
      </button>
      {link.findings.map((finding) => (
        <FindingLine key={finding.code} finding={finding} explained={current} onFix={props.onFix} />
      ))}
    </div>
  );
}

/** A finding with why it matters and what can be done about it in one step. */
export function FindingLine(props: { finding: Finding; explained: boolean; onFix: (fix: Fix) => void }) {
  const { finding, onFix } = props;
  return (
    <div className="ml-8 pr-2 pb-1 text-xs leading-snug">
      <p className={finding.severity === "fault" ? "text-bad" : "text-warn"} title={finding.why}>
        {finding.message} <span className={props.explained ? "text-quiet" : "sr-only"}>{finding.why}</span>
      </p>
      {finding.fixes.length > 0 ? (
        <p className="flex gap-3">
          {finding.fixes.map((fix) => (
            <button
              key={fix.word}
              className="py-1 text-accent underline underline-offset-2"
              onClick={() => onFix(fix)}
            >
              {fix.word}
            </button>
          ))}
        </p>
      ) : null}
    </div>
  );
}
