import { useState } from "react";
import { MANAGED_TOKENS, ruleSchema, type Rule, type RuleMatch } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { MatchFields } from "./MatchFields.tsx";

const LEAVE_ON_OFF = [
  { value: "leave", word: "leave" },
  { value: "on", word: "add" },
  { value: "off", word: "take off" },
] as const;

/** A rule's own page: what it matches, what it leaves alone, what it sets. What is typed is checked as it is typed. */
export function RuleForm(props: {
  site: Site;
  rule: Rule;
  onChange: (rule: Rule) => void;
  onClose: () => void;
}) {
  const { site, onChange } = props;
  // What cannot be taken yet is kept here, with its message; the set keeps the last that could.
  const [typed, setTyped] = useState<Rule>(props.rule);
  const checked = ruleSchema.safeParse(typed);
  const errors = new Map(
    checked.success ? [] : checked.error.issues.map((issue) => [issue.path.join("."), issue.message]),
  );
  const edit = (change: Partial<Rule>): void => {
    const next = { ...typed, ...change };
    setTyped(next);
    const taken = ruleSchema.safeParse(next);
    if (taken.success) onChange(taken.data);
  };
  const setSwitch = (name: string, value: string | undefined): void => {
    const { [name as "nofollow"]: _, ...rest } = typed.set;
    edit({ set: value === undefined ? rest : { ...rest, [name]: value } });
  };
  const setMatch = (match: RuleMatch): void => edit({ match });
  const setExcept = (except: RuleMatch): void =>
    edit({ except: Object.keys(except).length > 0 ? except : undefined });
  return (
    <div
      role="group"
      aria-label={`The rule ${typed.name}`}
      className="mb-3 ml-8 grid gap-4 rounded border border-line bg-sheet p-4"
      onKeyDown={(event) => event.key === "Escape" && props.onClose()}
    >
      <FieldRow label="Name" error={errors.get("name")}>
        {(attributes) => (
          <input
            {...attributes}
            // The form opens because its rule was chosen: typing can begin.
            autoFocus
            className="field"
            value={typed.name}
            onChange={(event) => edit({ name: event.target.value })}
          />
        )}
      </FieldRow>
      <MatchFields
        title="Which links"
        site={site}
        match={typed.match}
        errors={errors}
        path="match"
        everything="all links"
        onChange={setMatch}
      />
      <details open={typed.except !== undefined}>
        <summary className="font-medium">Except…</summary>
        <p className="mb-2 text-sm text-quiet">Links that any of these names are left alone by this rule.</p>
        <MatchFields
          title="Left alone"
          site={site}
          match={typed.except ?? {}}
          errors={errors}
          path="except"
          everything="none"
          onChange={setExcept}
        />
      </details>
      <fieldset className="grid gap-2">
        <legend className="mb-1 font-medium">What becomes of them</legend>
        <div className="grid gap-x-6 gap-y-1.5 sm:grid-cols-[repeat(auto-fill,minmax(17rem,1fr))]">
          {MANAGED_TOKENS.map((token) => (
            <div key={token} className="flex items-center justify-between gap-2">
              <span className="font-mono text-sm">{token}</span>
              <Choice
                label={token}
                value={typed.set[token] ?? "leave"}
                options={LEAVE_ON_OFF}
                onChange={(value) => setSwitch(token, value === "leave" ? undefined : value)}
              />
            </div>
          ))}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Choice
            label="Tab"
            value={typed.set.target ?? "leave"}
            options={[
              { value: "leave", word: "leave the tab" },
              { value: "new", word: "a new tab" },
              { value: "same", word: "the same tab" },
            ]}
            onChange={(value) => setSwitch("target", value === "leave" ? undefined : value)}
          />
          <Choice
            label="Where the author wrote something"
            value={typed.mode}
            options={[
              { value: "fill", word: "only where the author set nothing" },
              { value: "overwrite", word: "replacing what the author set" },
            ]}
            onChange={(mode) => edit({ mode })}
          />
        </div>
      </fieldset>
      {checked.success ? null : (
        <p role="status" className="text-sm text-bad">
          The set keeps this rule as it was until what is marked here is mended.
        </p>
      )}
      <button className="action justify-self-start" onClick={props.onClose}>
        Close
      </button>
    </div>
  );
}
