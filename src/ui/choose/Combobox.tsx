import * as say from "../words.ts";
import { useState } from "react";
import { Menu } from "./Menu.tsx";
import { MAX_SHOWN, optionsFor, type Option } from "./options.ts";
import { leaveKey, useBox } from "./use-box.ts";

/** What a field for one choice is told. */
export interface ComboboxProps {
  /** Ties it to its label and messages. */
  attributes: { id?: string; "aria-label"?: string; "aria-describedby"?: string; "aria-invalid"?: true };
  value: string;
  /** What can be chosen; called where it takes long to make, which is when the field is in sight. */
  options: readonly Option[] | (() => readonly Option[]);
  onChange: (value: string) => void;
  /** What is typed may be something that is no option. */
  isFree?: boolean;
  /** What no choice is called; without it one has to be made. */
  none?: string;
  /** Where the options depend on what is typed, it is told here. */
  onType?: (typed: string) => void;
  placeholder?: string;
  className?: string;
  autoFocus?: boolean;
  onLeave?: () => void;
}

/** One of many, found by typing a part of it. What is typed and taken by nobody is put back when one leaves. */
export default function Combobox(props: ComboboxProps) {
  const { value, isFree = false, none } = props;
  const [typed, setTyped] = useState<string>();
  const given = typeof props.options === "function" ? props.options() : props.options;
  const options = none === undefined ? given : [{ value: "", word: none }, ...given];
  const word = isFree ? value : (options.find((one) => one.value === value)?.word ?? value);
  const found = optionsFor(options, typed ?? "");
  const choose = (option: Option): void => {
    setTyped(undefined);
    props.onChange(option.value);
  };
  const box = useBox<Option>({
    items: found.slice(0, MAX_SHOWN),
    wordOf: (option) => option.word,
    typed: typed ?? word,
    // Who types towards one of the options takes the first with Enter; where anything may be said, what is typed stands.
    isFree,
    onTake: choose,
  });
  return (
    <div className={`relative ${props.className ?? ""}`}>
      <input
        {...box.getInputProps({
          ...props.attributes,
          "aria-labelledby": undefined,
          autoFocus: props.autoFocus,
          autoComplete: "off",
          placeholder: props.placeholder,
          onFocus: (event) => event.currentTarget.select(),
          onChange(event) {
            const text = event.currentTarget.value;
            setTyped(text);
            props.onType?.(text);
            if (isFree) props.onChange(text);
            else if (text.trim() === "" && none !== undefined) props.onChange("");
          },
          onKeyDown(event) {
            // What is typed stands as it is: Enter is the form's.
            if (event.key === "Enter" && isFree && box.highlightedIndex < 0) {
              box.closeMenu();
              leaveKey(event);
            }
            if (event.key === "Escape" && box.isOpen) {
              event.stopPropagation();
              setTyped(undefined);
            }
          },
          onBlur() {
            setTyped(undefined);
            props.onLeave?.();
          },
        })}
        className="field pr-6"
      />
      <span
        aria-hidden
        className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-xs text-quiet"
      >
        ▾
      </span>
      <Menu of={box} found={found} nothing={isFree ? undefined : say.nothingOfThisName} />
    </div>
  );
}
