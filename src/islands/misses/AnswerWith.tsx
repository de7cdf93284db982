import { useFormContext } from "react-hook-form";
import type { Miss } from "../../core/misses/miss.ts";
import { TextField } from "../../ui/form/fields.tsx";
import * as say from "./words.ts";

/** What a miss can be answered with: what it may have meant, or another destination. */
export function AnswerWith(props: {
  miss: Miss;
  fault: string | undefined;
  isBusy: boolean;
  onAnswer: (destination: string) => void;
}) {
  const { miss, isBusy, onAnswer } = props;
  const own: string = useFormContext().watch(`own.${miss.id}`) ?? "";
  return (
    <div data-needs="editor" className="flex flex-wrap items-start gap-1.5">
      {miss.candidates.map((candidate) => (
        <button
          key={candidate.address}
          className="action flex-col !items-start !gap-0 py-0.5 font-mono text-xs"
          title={candidate.title}
          disabled={isBusy}
          onClick={() => onAnswer(candidate.destination ?? candidate.address)}
        >
          {candidate.address}
          <span className="font-sans text-quiet">{candidate.reason}</span>
        </button>
      ))}
      <TextField
        name={`own.${miss.id}`}
        label={say.answerWithAnotherDestination(miss.address)}
        isLabelHidden
        error={props.fault}
        mono
        className="!w-36 py-0.5 !text-xs"
        placeholder={say.anotherAddress}
        onKeyDown={(event) => {
          if (event.key === "Enter" && !event.nativeEvent.isComposing) onAnswer(own);
        }}
      />
      {own.trim() ? (
        <button className="action py-0.5" disabled={isBusy} onClick={() => onAnswer(own)}>
          {say.answer}
        </button>
      ) : null}
    </div>
  );
}
