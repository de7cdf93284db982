import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical, Trash2 } from "lucide-react";
import { useRef } from "react";
import { swapSentence } from "../../../core/rules/swaps/sentence.ts";
import type { Swap } from "../../../core/rules/swaps/swap.ts";
import { mayHere } from "../../../ui/client/rights.ts";
import { Toggle } from "../../../ui/fields/Toggle.tsx";
import { later } from "../../../ui/frame/later.tsx";
import type { WorkedSwap } from "./use-swaps.ts";
import * as say from "./words.ts";

const SwapForm = later(async () => (await import("./SwapForm.tsx")).SwapForm);

/** One swap as a sentence; its fields open below. */
export function SwapRow(props: {
  worked: WorkedSwap;
  place: number;
  /** How many links it changes; undefined while that is not known. */
  changes: number | undefined;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  onChange: (swap: Swap) => void;
  onRemove: () => void;
}) {
  const { isOpen, place, changes } = props;
  const { key, swap } = props.worked;
  const opener = useRef<HTMLButtonElement>(null);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: key });
  const sentence = swapSentence(swap);
  const close = (): void => {
    props.onOpen(false);
    opener.current?.focus();
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`border-b border-line/60 bg-paper ${isDragging ? "relative z-10 shadow-lg" : ""}`}
    >
      <div className="flex items-start gap-2.5 py-2.5">
        <button
          data-needs="editor"
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          className="mt-0.5 cursor-grab touch-none text-quiet hover:text-ink"
          aria-label={say.move(sentence, place)}
        >
          <GripVertical size={17} aria-hidden />
        </button>
        <span className="mt-0.5 w-5 shrink-0 text-right text-sm text-quiet tabular-nums">{place}</span>
        <Toggle
          label={say.isOn(sentence, swap.enabled)}
          on={swap.enabled}
          disabled={!mayHere({ role: "editor" })}
          onChange={(enabled) => props.onChange({ ...swap, enabled })}
        />
        <button
          ref={opener}
          className={`min-w-0 grow text-left wrap-anywhere hover:underline ${swap.enabled ? "" : "text-quiet"}`}
          aria-expanded={isOpen}
          onClick={() => props.onOpen(!isOpen)}
        >
          {sentence}
        </button>
        <span className="shrink-0 text-sm text-quiet tabular-nums">
          {changes === undefined || !swap.enabled
            ? ""
            : changes === 0
              ? say.changesNothing
              : say.changes(changes)}
        </span>
        <button
          data-needs="editor"
          className="mt-0.5 text-quiet hover:text-bad"
          aria-label={say.remove(sentence)}
          onClick={props.onRemove}
        >
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {isOpen ? (
        <SwapForm
          swap={swap}
          onTake={(taken) => {
            props.onChange(taken);
            close();
          }}
          onClose={close}
        />
      ) : null}
    </li>
  );
}
