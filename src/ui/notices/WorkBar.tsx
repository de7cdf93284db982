import type { WorkShown } from "./job.ts";
import * as say from "../words.ts";

/** How far long work is, and the way to stop it. */
export function WorkBar({ work, label }: { work: WorkShown; label: string }) {
  if (work.state === "failed")
    return (
      <p role="alert" className="text-bad">
        {work.message}
      </p>
    );
  if (work.state === "stopped") return <p className="text-quiet">{say.stoppedNothingWasChanged}</p>;
  if (work.state !== "running") return null;
  const percent = work.share === undefined ? undefined : Math.round(work.share * 100);
  return (
    <div className="flex items-center gap-3" aria-live="polite">
      <progress
        className="h-2 w-48 accent-[var(--color-accent)]"
        aria-label={label}
        max={100}
        value={percent}
      />
      <span className="text-sm text-quiet">
        {label}
        {percent === undefined ? "…" : ` ${percent} %`}
      </span>
      {work.message ? <span className="text-sm text-warn">{work.message}</span> : null}
      <button type="button" className="action" onClick={() => work.stop()}>
        {say.stop}
      </button>
    </div>
  );
}
