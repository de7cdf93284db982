import type { UseComboboxReturnValue } from "downshift";
import { MAX_SHOWN, type Option } from "./options.ts";
import * as say from "../words.ts";

/** What can be chosen, below the field. Downshift wants the list to be there always; it is empty while closed. */
export function Menu(props: {
  of: UseComboboxReturnValue<Option>;
  found: readonly Option[];
  /** What is said when nothing is found. */
  nothing: string | undefined;
}) {
  const { of: box, found } = props;
  const left = found.length - MAX_SHOWN;
  const isShown = box.isOpen && (found.length > 0 || props.nothing !== undefined);
  return (
    <div
      className={`absolute top-full right-0 left-0 z-30 mt-0.5 min-w-52 rounded border border-line bg-sheet text-sm shadow-lg ${isShown ? "" : "hidden"}`}
    >
      <ul {...box.getMenuProps({ "aria-label": say.choices })} className="max-h-60 overflow-auto">
        {box.isOpen
          ? found.slice(0, MAX_SHOWN).map((option, index) => (
              <li
                key={option.value}
                {...box.getItemProps({ item: option, index })}
                className={`flex cursor-pointer gap-2 px-2 py-1 ${index === box.highlightedIndex ? "bg-wash outline outline-accent -outline-offset-1" : ""}`}
              >
                <span className="min-w-0 truncate">{option.word}</span>
                {option.note ? <span className="ml-auto shrink-0 text-quiet">{option.note}</span> : null}
              </li>
            ))
          : null}
      </ul>
      {found.length === 0 ? <p className="px-2 py-1 text-quiet">{props.nothing}</p> : null}
      {left > 0 ? (
        <p className="border-t border-line px-2 py-1 text-quiet">{say.moreTypeAPart(left)}</p>
      ) : null}
    </div>
  );
}
