import { RotateCcw } from "lucide-react";
import { MANAGED_TOKENS, type ManagedToken } from "../../../core/rules/choices.ts";
import type { Override } from "../../../core/rules/override.ts";
import type { Resolved } from "../../../core/rules/resolve/resolve.ts";
import { otherAnswer } from "../../../core/rules/why.ts";
import { WhyList } from "../../../ui/links/WhyList.tsx";
import { TabChoice } from "../../../ui/fields/TabChoice.tsx";
import * as say from "../words.ts";

/** Tab and rel tokens of a link: as the rules deliver them, each with its reason, each to be set by hand and given back. */
export function AttributeChoices(props: {
  resolved: Resolved | undefined;
  override: Override;
  onChange: (override: Override) => void;
}) {
  const { resolved, override, onChange } = props;
  const without = (attribute: keyof Override): void => {
    const { [attribute]: _, ...rest } = override;
    onChange(rest);
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="sr-only">{say.tabAndRel}</legend>
      <TabChoice
        value={override.target}
        onChange={(target) => (target ? onChange({ ...override, target }) : without("target"))}
      />
      <div className="flex flex-wrap gap-1" role="group" aria-label={say.relTokens}>
        {MANAGED_TOKENS.map((token) => (
          <Token
            key={token}
            token={token}
            on={resolved?.rel.includes(token) ?? false}
            byHand={override[token] !== undefined}
            onFlip={(on) => onChange({ ...override, [token]: on ? "on" : "off" })}
            onRelease={() => without(token)}
          />
        ))}
      </div>
      {resolved ? (
        <WhyList trace={resolved.trace.map((one) => ({ ...one, change: otherAnswer(one) }))} />
      ) : null}
    </fieldset>
  );
}

function Token(props: {
  token: ManagedToken;
  on: boolean;
  byHand: boolean;
  onFlip: (on: boolean) => void;
  onRelease: () => void;
}) {
  return (
    <span
      className={`inline-flex items-center rounded border font-mono text-xs ${props.byHand ? "border-accent" : "border-line"} ${props.on ? "bg-wash" : ""}`}
    >
      <button
        type="button"
        aria-pressed={props.on}
        className={`px-1.5 py-0.5 ${props.on ? "font-semibold text-ink" : "text-quiet line-through decoration-line"}`}
        onClick={() => props.onFlip(!props.on)}
      >
        {props.token}
      </button>
      {props.byHand ? (
        <button
          type="button"
          className="border-l border-accent px-1 py-1 text-accent"
          aria-label={say.leaveToTheRules(props.token)}
          onClick={props.onRelease}
        >
          <RotateCcw size={11} aria-hidden />
        </button>
      ) : null}
    </span>
  );
}
