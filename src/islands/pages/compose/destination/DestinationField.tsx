import { useId, type ReactNode } from "react";
import { leaveKey, useBox } from "../../../../ui/choose/use-box.ts";
import { KIND_WORD, Knot } from "../../../../ui/links/Knot.tsx";
import type { Destination } from "./use-destinations.ts";
import * as say from "../../words.ts";

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
  /** What can be pressed about what is typed; it stands above what is found, which comes later and would move it. */
  children?: ReactNode;
}) {
  const id = useId();
  const { found } = props;
  // What is found is always in sight; Enter takes one only when it was gone to.
  const box = useBox<Destination>({
    items: found,
    wordOf: ({ address }) => address,
    typed: props.value,
    isFree: true,
    isAlwaysOpen: true,
    onTake: props.onPick,
  });
  return (
    <div>
      <label htmlFor={id} className="mb-0.5 block text-sm font-medium">
        {props.label ?? say.whereItLeads}
      </label>
      <input
        {...box.getInputProps({
          id,
          "aria-labelledby": undefined,
          "aria-invalid": props.error ? true : undefined,
          "aria-describedby": `${id}-note`,
          autoFocus: props.focus ?? true,
          autoComplete: "off",
          placeholder: props.placeholder ?? say.pasteAnAddressOrTypeWordsA,
          onChange: (event) => props.onChange(event.currentTarget.value),
          onFocus: (event) => event.currentTarget.select(),
          onKeyDown(event) {
            // While nothing is gone to, Enter is the form's.
            if (event.key === "Enter" && box.highlightedIndex < 0) leaveKey(event);
          },
        })}
        className="field font-mono text-sm"
      />
      {props.children ? <div className="mt-1 grid gap-1 empty:hidden">{props.children}</div> : null}
      <div id={`${id}-note`} className={`mt-1 text-sm ${props.error ? "text-bad" : "text-quiet"}`}>
        {props.error ?? props.hint}
      </div>
      <ul
        {...box.getMenuProps({ "aria-label": say.whatItCouldLeadTo })}
        className={found.length > 0 ? "mt-1 max-h-56 overflow-auto rounded border border-line" : "hidden"}
      >
        {found.map((destination, index) => (
          <li
            key={`${destination.kind} ${destination.address}`}
            {...box.getItemProps({ item: destination, index })}
            className={`flex cursor-pointer items-center gap-2 px-2 py-1 ${index === box.highlightedIndex ? "bg-wash" : "hover:bg-wash"}`}
          >
            <Knot kind={destination.kind} size={14} />
            <span className="shrink-0 text-xs text-quiet">{KIND_WORD[destination.kind]}</span>
            <span className="shrink-0 max-w-[60%] truncate">{destination.title}</span>
            <span className="ml-auto truncate font-mono text-xs text-quiet">{destination.address}</span>
            {destination.note ? <span className="shrink-0 text-xs text-warn">{destination.note}</span> : null}
          </li>
        ))}
      </ul>
    </div>
  );
}
