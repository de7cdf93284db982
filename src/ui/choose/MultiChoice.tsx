import { useMultipleSelection } from "downshift";
import { X } from "lucide-react";
import { useState, type InputHTMLAttributes } from "react";
import { Menu } from "./Menu.tsx";
import { chosenBy, entriesOf, MAX_SHOWN, optionsFor, type Option } from "./options.ts";
import { useBox } from "./use-box.ts";
import * as say from "../words.ts";

const HOLD_MS = 300;

/** What a field for several choices is told. */
export interface MultiChoiceProps {
  attributes: { id?: string; "aria-describedby"?: string; "aria-invalid"?: true };
  values: readonly string[];
  options: readonly Option[];
  onChange: (values: string[]) => void;
  /** What is typed may be something that is no option. */
  isFree?: boolean;
  /** What stands between entries that are typed or pasted; lines and commas unless said. */
  between?: RegExp;
  onType?: (typed: string) => void;
  placeholder?: string;
  mono?: boolean;
}

/** Several of many: each is found by typing a part of it; a pasted list is taken apart. The arrow left goes back through what is chosen. */
export default function MultiChoice(props: MultiChoiceProps) {
  const { values, options, isFree = false, between, mono } = props;
  const [typed, setTyped] = useState("");
  // What was taken over in leaving still stands there as it was typed, until whatever was pressed meanwhile has its click:
  // nothing moves under the pointer.
  const [held, hold] = useState<readonly string[]>([]);
  const [unknown, setUnknown] = useState<readonly string[]>([]);
  const found = optionsFor(
    options.filter(({ value }) => !values.includes(value)),
    typed,
  );
  const type = (text: string): void => {
    setTyped(text);
    props.onType?.(text);
  };
  const add = (entries: readonly string[]): void => {
    const taken = chosenBy(entries, options, isFree);
    setUnknown(taken.unknown);
    type(taken.unknown.join(", "));
    if (taken.chosen.length > 0) props.onChange([...new Set([...values, ...taken.chosen])]);
  };
  const leave = (): void => {
    const entries = entriesOf(typed, between);
    if (entries.length === 0) return;
    const { chosen, unknown: left } = chosenBy(entries, options, isFree);
    hold(chosen.filter((value) => !values.includes(value)));
    props.onChange([...new Set([...values, ...chosen])]);
    setTimeout(() => {
      hold([]);
      setUnknown(left);
      setTyped((now) => (now === typed ? left.join(", ") : now));
    }, HOLD_MS);
  };
  const shown = values.filter((value) => !held.includes(value));
  const { getSelectedItemProps, getDropdownProps, removeSelectedItem } = useMultipleSelection<string>({
    selectedItems: shown,
    onSelectedItemsChange: ({ selectedItems = [] }) => props.onChange(selectedItems),
  });
  const box = useBox<Option>({
    items: found.slice(0, MAX_SHOWN),
    wordOf: (option) => option.word,
    typed,
    isFree,
    staysOpen: true,
    onTake: ({ value }) => add([value]),
  });
  // From the empty field the arrow left and Backspace go back to what is chosen.
  const back = getDropdownProps() as InputHTMLAttributes<HTMLInputElement>;
  const wordOf = (value: string): string => options.find((one) => one.value === value)?.word ?? value;
  return (
    <div className="relative">
      <div className="field flex flex-wrap gap-1 focus-within:outline-2 focus-within:outline-offset-1 focus-within:outline-accent">
        {shown.map((value, index) => (
          <span
            key={value}
            {...getSelectedItemProps({ selectedItem: value, index })}
            className={`inline-flex max-w-full items-center gap-1 rounded bg-wash px-1.5 text-sm ${mono ? "font-mono" : ""}`}
          >
            <span className="truncate">{wordOf(value)}</span>
            <button
              type="button"
              tabIndex={-1}
              className="text-quiet hover:text-bad"
              aria-label={say.remove(wordOf(value))}
              onClick={(event) => {
                // Pressing what is chosen means to go to it; this means to take it out.
                event.stopPropagation();
                removeSelectedItem(value);
              }}
            >
              <X size={13} aria-hidden />
            </button>
          </span>
        ))}
        <input
          {...box.getInputProps({
            ...back,
            ...props.attributes,
            "aria-labelledby": undefined,
            autoComplete: "off",
            placeholder: shown.length > 0 ? undefined : props.placeholder,
            onChange(event) {
              setUnknown([]);
              type(event.currentTarget.value);
            },
            onPaste(event) {
              const pasted = entriesOf(event.clipboardData.getData("text"), between);
              if (pasted.length < 2) return;
              event.preventDefault();
              add(pasted);
            },
            onKeyDown(event) {
              if (typed === "") back.onKeyDown?.(event);
              if (event.key === "Escape" && box.isOpen) event.stopPropagation();
              const isDone = event.key === "Enter" ? box.highlightedIndex < 0 : event.key === ",";
              if (!isDone || typed.trim() === "") return;
              event.preventDefault();
              add(entriesOf(typed, between));
            },
            onBlur: leave,
          })}
          className={`min-w-16 flex-1 bg-transparent outline-none ${mono ? "font-mono text-sm" : ""}`}
        />
      </div>
      {unknown.length > 0 ? (
        <p role="status" className="mt-1 text-sm text-bad">
          {say.nothingHereIsCalled(unknown.join(", "))}
        </p>
      ) : null}
      <Menu of={box} found={found} nothing={isFree ? undefined : say.nothingOfThisName} />
    </div>
  );
}
