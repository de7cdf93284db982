import { useState } from "react";
import type { Finding } from "../../core/pages/check/finding.ts";
import type { Site } from "../../core/sites/site.ts";
import * as say from "./words.ts";

/** What the check found, in one line above the text, and in full on request. */
export function PageFindings({
  site,
  findings,
  onOpen,
}: {
  site: Site;
  findings: readonly Finding[];
  onOpen: (link: number) => void;
}) {
  const [open, setOpen] = useState(false);
  const faults = findings.filter(({ severity }) => severity === "fault").length;
  const advice = findings.length - faults;
  if (findings.length === 0) return null;
  return (
    <section aria-label={say.pageCheck} className="mb-1 text-sm">
      <button
        className="rounded px-1 text-left hover:bg-sheet"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {faults > 0 ? (
          <span className="font-medium text-bad">{faults === 1 ? say.n1Fault : say.faults(faults)}</span>
        ) : null}
        <span className="text-quiet">
          {say.onThisPagesLinks(
            faults > 0 && advice > 0 ? ", " : "",
            advice === 0 ? "" : advice === 1 ? say.n1PieceOfAdvice : say.piecesOfAdvice(advice),
          )}{" "}
          <span className="text-accent">{open ? say.close : say.readThem}</span>
        </span>
      </button>
      {open ? (
        <ol className="mt-1 max-h-72 overflow-auto rounded border border-line bg-sheet">
          {findings.map((finding, index) => (
            <li
              key={index}
              className="flex items-baseline gap-3 border-b border-line/60 px-2 py-1 last:border-0"
            >
              <span className={finding.severity === "fault" ? "text-bad" : "text-warn"}>
                {finding.message}
              </span>
              <span className="text-quiet">{finding.why}</span>
              {finding.link !== null ? (
                <button
                  className="ml-auto shrink-0 text-accent underline"
                  onClick={() => onOpen(finding.link!)}
                >
                  {say.goThere}
                </button>
              ) : (
                <a className="ml-auto shrink-0 text-accent underline" href={`/${site.key}/settings`}>
                  {say.toTheSettings}
                </a>
              )}
            </li>
          ))}
        </ol>
      ) : null}
    </section>
  );
}
