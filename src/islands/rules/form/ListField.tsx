import { useState } from "react";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";

/** A list that is typed or pasted: entries stand in lines or with commas between them; known ones are offered. */
export function ListField(props: {
  label: string;
  hint: string;
  items: readonly string[];
  known: readonly string[];
  error: string | undefined;
  onChange: (items: string[]) => void;
}) {
  const { known, onChange } = props;
  const [text, setText] = useState(props.items.join("\n"));
  const take = (next: string): void => {
    setText(next);
    onChange(entriesOf(next));
  };
  const chosen = entriesOf(text);
  const offered = known.filter((name) => !chosen.includes(name));
  const rows = Math.min(8, Math.max(1, text.split("\n").length));
  return (
    <div>
      <FieldRow label={props.label} error={props.error} hint={props.hint}>
        {(attributes) => (
          <textarea
            {...attributes}
            rows={rows}
            className="field resize-y font-mono text-sm"
            value={text}
            onChange={(event) => take(event.target.value)}
          />
        )}
      </FieldRow>
      {offered.length > 0 ? (
        <p className="flex flex-wrap gap-1 pt-1">
          {offered.slice(0, 24).map((name) => (
            <button
              key={name}
              type="button"
              className="rounded bg-sunk px-1.5 text-sm hover:text-accent"
              aria-label={`Add ${name}`}
              onClick={() => take([...chosen, name].join("\n"))}
            >
              + {name}
            </button>
          ))}
        </p>
      ) : null}
    </div>
  );
}

function entriesOf(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[\n,]/)
        .map((entry) => entry.trim())
        .filter(Boolean),
    ),
  ];
}
