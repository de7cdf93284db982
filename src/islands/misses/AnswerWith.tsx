import { useId } from "react";
import { useFormContext } from "react-hook-form";
import type { Miss } from "../../core/misses/miss.ts";

/** What a miss can be answered with: what it may have meant, or another destination. */
export function AnswerWith(props: {
  miss: Miss;
  fault: string | undefined;
  isBusy: boolean;
  onAnswer: (destination: string) => void;
}) {
  const { miss, fault } = props;
  const form = useFormContext<{ own: Record<string, string> }>();
  const own = form.watch(`own.${miss.id}`) ?? "";
  const id = useId();
  return (
    <>
      <form
        data-needs="editor"
        className="flex flex-wrap gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          props.onAnswer(own);
        }}
      >
        {miss.candidates.map((candidate) => (
          <button
            key={candidate.address}
            type="button"
            className="action flex-col !items-start !gap-0 py-0.5 font-mono text-xs"
            title={candidate.title}
            disabled={props.isBusy}
            onClick={() => props.onAnswer(candidate.destination ?? candidate.address)}
          >
            {candidate.address}
            <span className="font-sans text-quiet">{candidate.reason}</span>
          </button>
        ))}
        <input
          className="field w-36 py-0.5 font-mono text-xs"
          aria-label={`Answer ${miss.address} with another destination`}
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? id : undefined}
          placeholder="another address"
          {...form.register(`own.${miss.id}`)}
        />
        {own.trim() ? <button className="action py-0.5">Answer</button> : null}
      </form>
      {fault ? (
        <p id={id} role="alert" className="mt-1 text-sm text-bad">
          {fault}
        </p>
      ) : null}
    </>
  );
}
