import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Copy, GripVertical, Trash2 } from "lucide-react";
import { useRef } from "react";
import type { Rule } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import type { RuleAdvice } from "../../../core/rules/sets/advice.ts";
import { ruleSentence } from "../../../core/rules/sentence.ts";
import { Toggle } from "../../../ui/fields/Toggle.tsx";
import { later } from "../../../ui/frame/later.tsx";
import type { WorkedRule } from "../use-working-set.ts";
import { mayHere } from "../../../ui/client/rights.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const RuleForm = later(async () => (await import("../form/RuleForm.tsx")).RuleForm);

/** One rule as a sentence, with what is to be said of it; its form opens below. */
export function RuleRow(props: {
  site: Site;
  worked: WorkedRule;
  place: number;
  advice: readonly RuleAdvice[];
  decides: number | undefined;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  onChange: (rule: Rule) => void;
  onCopy: () => void;
  onDelete: () => void;
}) {
  const { site, advice, decides, isOpen } = props;
  const { key, rule } = props.worked;
  const opener = useRef<HTMLButtonElement>(null);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: key });
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
          aria-label={say.moveNowAtPlace(rule.name, props.place)}
        >
          <GripVertical size={17} aria-hidden />
        </button>
        <span className="mt-0.5 w-6 shrink-0 text-right text-sm text-quiet tabular-nums">{props.place}</span>
        <Toggle
          label={`${rule.name}: ${rule.enabled ? "on" : "off"}`}
          on={rule.enabled}
          disabled={!mayHere({ role: "editor" })}
          onChange={(enabled) => props.onChange({ ...rule, enabled })}
        />
        <div className={`min-w-0 grow ${rule.enabled ? "" : "text-quiet"}`}>
          <button
            ref={opener}
            className="text-left font-medium hover:underline"
            aria-expanded={isOpen}
            onClick={() => props.onOpen(!isOpen)}
          >
            {rule.name || say.noName}
          </button>
          <p className="text-sm">{ruleSentence(rule)}</p>
          {advice.map(({ code, message }) => (
            <p key={code + message} className="text-sm text-warn">
              {message}
            </p>
          ))}
        </div>
        <span className="shrink-0 text-sm text-quiet tabular-nums">
          {decides === undefined ? "" : decides === 0 ? say.decidesNothing : say.decides(count(decides))}
        </span>
        <button
          data-needs="editor"
          className="mt-0.5 text-quiet hover:text-ink"
          aria-label={say.copy(rule.name)}
          onClick={props.onCopy}
        >
          <Copy size={15} aria-hidden />
        </button>
        <button
          data-needs="editor"
          className="mt-0.5 text-quiet hover:text-bad"
          aria-label={say.remove2(rule.name)}
          onClick={props.onDelete}
        >
          <Trash2 size={15} aria-hidden />
        </button>
      </div>
      {isOpen ? (
        <RuleForm
          site={site}
          rule={rule}
          onChange={props.onChange}
          onClose={() => {
            props.onOpen(false);
            opener.current?.focus();
          }}
        />
      ) : null}
    </li>
  );
}
