/** What else a pasted text may mean: one key takes another reading. */
import * as say from "../words.ts";
export function OtherReadings(props: { others: readonly string[]; onMeant: (text: string) => void }) {
  if (props.others.length === 0) return null;
  return (
    <p className="flex flex-wrap items-center gap-2 text-sm text-quiet">
      {say.orWasThisMeant}
      {props.others.map((other) => (
        <button
          key={other}
          type="button"
          className="action py-0.5 font-mono"
          onClick={() => props.onMeant(other)}
        >
          {other.replace(/^<|>$/g, "")}
        </button>
      ))}
    </p>
  );
}
