import { useCombobox, type UseComboboxReturnValue } from "downshift";
import type { KeyboardEvent } from "react";

/** What a field with choices below it is told. */
interface BoxOptions<T> {
  items: readonly T[];
  wordOf: (item: T) => string;
  typed: string;
  /** What is typed stands as it is: Enter takes an item only where one went to it. */
  isFree: boolean;
  /** The list is in sight as long as there is something in it. */
  isAlwaysOpen?: boolean;
  /** The list stays open when something is taken: one often takes several. */
  staysOpen?: boolean;
  onTake: (item: T) => void;
}

/** A field that one types in, with what can be chosen below it: how all of them go by keyboard, on downshift. */
export function useBox<T>(options: BoxOptions<T>): UseComboboxReturnValue<T> {
  const { items, wordOf, typed, isFree, isAlwaysOpen, staysOpen, onTake } = options;
  return useCombobox<T>({
    items: [...items],
    itemToString: (item) => (item === null ? "" : wordOf(item)),
    inputValue: typed,
    selectedItem: null,
    ...(isAlwaysOpen ? { isOpen: items.length > 0 } : {}),
    stateReducer(state, { type, changes }) {
      const { InputBlur, InputChange, InputKeyDownEscape, InputKeyDownEnter, ItemClick } =
        useCombobox.stateChangeTypes;
      switch (type) {
        case InputChange:
          return { ...changes, highlightedIndex: isFree ? -1 : 0 };
        // Leaving takes nothing; Escape closes the list, and is everybody else's while it is closed.
        case InputBlur:
          return { ...changes, selectedItem: null };
        case InputKeyDownEscape:
          return isAlwaysOpen ? state : { ...state, isOpen: false, highlightedIndex: -1 };
        case InputKeyDownEnter:
        case ItemClick:
          return staysOpen ? { ...changes, isOpen: true } : { ...changes, highlightedIndex: -1 };
        default:
          return changes;
      }
    },
    onSelectedItemChange: ({ selectedItem }) => selectedItem && onTake(selectedItem),
  });
}

/** Leaves a key to whatever stands around the field: the list does nothing with it. */
export function leaveKey(event: KeyboardEvent): void {
  Object.assign(event.nativeEvent, { preventDownshiftDefault: true });
}
