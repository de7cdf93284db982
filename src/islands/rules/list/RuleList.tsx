import { arrayMove } from "@dnd-kit/sortable";
import type { Site } from "../../../core/sites/site.ts";
import type { RuleAdvice } from "../../../core/rules/sets/advice.ts";
import type { WorkedRule } from "../use-working-set.ts";
import { SortedList } from "../../../ui/fields/SortedList.tsx";
import { RuleRow } from "./RuleRow.tsx";
import * as say from "../words.ts";

/** The rules in their order: dragged by pointer, or by keyboard with Space and the arrows on their handle. */
export function RuleList(props: {
  site: Site;
  rules: readonly WorkedRule[];
  advice: readonly RuleAdvice[];
  /** How many links each decides something of; undefined while it is not known. */
  decides: readonly number[] | undefined;
  open: string | undefined;
  onOpen: (key: string | undefined) => void;
  onChange: (rules: readonly WorkedRule[]) => void;
}) {
  const { site, rules, advice, decides, open, onOpen, onChange } = props;
  return (
    <SortedList
      ids={rules.map(({ key }) => key)}
      nameOf={(key) => rules.find((one) => one.key === key)?.rule.name ?? ""}
      onDrop={({ from, to }) => from !== to && onChange(arrayMove([...rules], from, to))}
    >
      <ol aria-label={say.rulesInTheirOrder} className="relative">
        {rules.map((one, index) => (
          <RuleRow
            key={one.key}
            site={site}
            worked={one}
            place={index + 1}
            advice={advice.filter((item) => item.rules[0] === index)}
            decides={one.rule.enabled ? decides?.[index] : undefined}
            isOpen={open === one.key}
            onOpen={(isOpen) => onOpen(isOpen ? one.key : undefined)}
            onChange={(rule) => onChange(rules.map((other) => (other === one ? { ...one, rule } : other)))}
            onCopy={() =>
              onChange([
                ...rules.slice(0, index + 1),
                {
                  key: `${one.key}-copy-${rules.length}`,
                  rule: { ...one.rule, name: say.again(one.rule.name) },
                },
                ...rules.slice(index + 1),
              ])
            }
            onDelete={() => onChange(rules.filter((other) => other !== one))}
          />
        ))}
      </ol>
    </SortedList>
  );
}
