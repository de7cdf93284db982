import { useId, useState, type KeyboardEvent, type ReactNode } from "react";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import type { Destination } from "./use-destinations.ts";

/** The one field for every destination: what is typed is kept, what is found is offered below and taken with the arrows. */
export function DestinationField(props: {
  label?: string;
  placeholder?: string;
  /** Whether the field has the caret as soon as it is there. */
  focus?: boolean;
  value: string;
  found: readonly Destination[];
  error: string | undefined;
  hint: ReactNode;
  onChange: (text: string) => void;
  onPick: (destination: Destination) => void;
}) {
  const id = useId();
  const { found } = props;
  const [marked, setMarked] = useState(-1);
  const open = found.length > 0;
  const at = open ? Math.min(marked, found.length - 1) : -1;
  const pick = (destination: Destination): void => {
    setMarked(-1);
    props.onPick(destination);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (open && (event.key === "ArrowDown" || event.key === "ArrowUp")) {
      event.preventDefault();
      const step = event.key === "ArrowDown" ? 1 : -1;
      setMarked(Math.max(-1, Math.min(found.length - 1, at + step)));
    } else if (event.key === "Enter" && at >= 0) {
      event.preventDefault();
      pick(found[at]!);
    }
  };
  return (
    <div>
      <label htmlFor={id} className="mb-0.5 block text-sm font-medium">
        {props.label ?? "Where it leads"}
      </label>
      <input
        id={id}
        role="combobox"
        aria-expanded={open}
        aria-controls={`${id}-list`}
        aria-autocomplete="list"
        aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
        aria-invalid={props.error ? true : undefined}
        aria-describedby={`${id}-note`}
        autoFocus={props.focus ?? true}
        autoComplete="off"
        className="field font-mono text-sm"
        placeholder={
          props.placeholder ?? "Paste an address, or type words: a page, a short link, a file, a heading"
        }
        value={props.value}
        onChange={(event) => {
          setMarked(-1);
          props.onChange(event.target.value);
        }}
        onFocus={(event) => event.target.select()}
        onKeyDown={onKeyDown}
      />
      <div id={`${id}-note`} className={`mt-1 text-sm ${props.error ? "text-bad" : "text-quiet"}`}>
        {props.error ?? props.hint}
      </div>
      {open ? (
        <ul
          id={`${id}-list`}
          role="listbox"
          aria-label="What it could lead to"
          className="mt-1 max-h-56 overflow-auto rounded border border-line"
        >
          {found.map((destination, index) => (
            <li
              key={`${destination.kind} ${destination.address}`}
              id={`${id}-${index}`}
              role="option"
              aria-selected={index === at}
              className={`flex cursor-pointer items-center gap-2 px-2 py-1 ${index === at ? "bg-wash" : "hover:bg-wash"}`}
              onMouseDown={(event) => {
                event.preventDefault();
                pick(destination);
              }}
            >
              <Knot kind={destination.kind} size={14} />
              <span className="shrink-0 text-xs text-quiet">{KIND_WORD[destination.kind]}</span>
              <span className="shrink-0 max-w-[60%] truncate">{destination.title}</span>
              <span className="ml-auto truncate font-mono text-xs text-quiet">{destination.address}</span>
              {destination.note ? (
                <span className="shrink-0 text-xs text-warn">{destination.note}</span>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
