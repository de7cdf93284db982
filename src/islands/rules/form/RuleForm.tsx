import { LIST_NAMES } from "../../../core/rules/resolve/facts.ts";
import { zodResolver } from "@hookform/resolvers/zod";
import { useState } from "react";
import { get, useController, type Resolver } from "react-hook-form";
import { ruleSchema, type Rule, type RuleMatch } from "../../../core/rules/rule.ts";
import { MANAGED_TOKENS } from "../../../core/rules/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { ChoiceField, TextField } from "../../../ui/form/fields.tsx";
import { LiveForm } from "../../../ui/form/LiveForm.tsx";
import { Locked } from "../../../ui/form/Locked.tsx";
import { messageIn } from "../../../ui/form/Row.tsx";
import { useLiveForm } from "../../../ui/form/use-live-form.ts";
import { MatchFields } from "./MatchFields.tsx";
import * as say from "../words.ts";

const LEAVE_ON_OFF = [
  { value: "leave", word: say.leave },
  { value: "on", word: say.add },
  { value: "off", word: say.remove },
] as const;

type TypedRule = Rule & { except: RuleMatch };

const typedOf = (rule: Rule): TypedRule => ({ ...rule, except: rule.except ?? {} });
const ruleOf = ({ except, ...typed }: TypedRule): Rule => ({
  ...typed,
  except: Object.keys(except).length > 0 ? except : undefined,
});
const resolve = zodResolver(ruleSchema) as unknown as Resolver<Rule>;
const resolver: Resolver<TypedRule> = (typed, context, options) =>
  resolve(ruleOf(typed), context, options as never) as never;

/** A rule's own page: what it matches, what it leaves alone, what it sets. What is typed is checked as it is typed. */
export function RuleForm(props: {
  site: Site;
  rule: Rule;
  onChange: (rule: Rule) => void;
  onClose: () => void;
}) {
  const { site, onChange } = props;
  // What cannot be taken yet is kept here, with its message; the set keeps the last that could.
  const [first] = useState(() => typedOf(props.rule));
  const form = useLiveForm<TypedRule>({
    values: first,
    resolver,
    onChange(typed) {
      const taken = ruleSchema.safeParse(ruleOf(typed));
      if (taken.success) onChange(taken.data);
    },
  });
  const typed = form.watch();
  const { errors } = form.formState;
  const matchFields = (path: "match" | "except", title: string, everything: string) => (
    <MatchFields
      title={title}
      site={site}
      match={typed[path]}
      errorOf={(name) => messageIn(get(errors, `${path}.${name}`))}
      path={path}
      everything={everything}
      onChange={(match) => {
        form.setValue(path, match, { shouldDirty: true });
        void form.trigger(LIST_NAMES.map((name) => `${path}.${name}` as const));
      }}
    />
  );
  return (
    <LiveForm of={form}>
      <div
        role="group"
        aria-label={say.theRule(typed.name)}
        className="mb-3 ml-8 grid gap-4 rounded border border-line bg-sheet p-4"
        onKeyDown={(event) => event.key === "Escape" && props.onClose()}
      >
        <Locked needs="editor">
          {/* The form opens because its rule was chosen: typing can begin. */}
          <TextField name="name" label={say.name} autoFocus />
          {matchFields("match", say.whichLinks, say.allLinks)}
          <details open={Object.keys(typed.except).length > 0 || undefined}>
            <summary className="font-medium">{say.except}</summary>
            <p className="mb-2 text-sm text-quiet">{say.linksThatAnyOfTheseNamesAre}</p>
            {matchFields("except", say.exceptions, "none")}
          </details>
          <Effects />
        </Locked>
        {ruleSchema.safeParse(ruleOf(typed)).success ? null : (
          <p role="status" className="text-sm text-bad">
            {say.theSetKeepsThisRuleAsIt}
          </p>
        )}
        <button className="action justify-self-start" onClick={props.onClose}>
          {say.close}
        </button>
      </div>
    </LiveForm>
  );
}

/** What becomes of the links: their tokens, their tab, and whether the author's own word counts. */
function Effects() {
  const { field } = useController<{ set: Rule["set"] }, "set">({ name: "set" });
  const set = (name: string, value: string | undefined): void => {
    const { [name as "nofollow"]: _, ...rest } = field.value;
    field.onChange(value === undefined ? rest : { ...rest, [name]: value });
  };
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-medium">{say.whatBecomesOfThem}</legend>
      <div className="grid gap-x-6 gap-y-1.5 grid-cols-[minmax(0,1fr)] sm:grid-cols-[repeat(auto-fill,minmax(17rem,1fr))]">
        {MANAGED_TOKENS.map((token) => (
          <div key={token} className="flex items-center justify-between gap-2">
            <span className="font-mono text-sm">{token}</span>
            <Choice
              label={token}
              value={field.value[token] ?? "leave"}
              options={LEAVE_ON_OFF}
              onChange={(value) => set(token, value === "leave" ? undefined : value)}
            />
          </div>
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label={say.tab}
          value={field.value.target ?? "leave"}
          options={[
            { value: "leave", word: say.leaveTheTab },
            { value: "new", word: say.aNewTab },
            { value: "same", word: say.theSameTab },
          ]}
          onChange={(value) => set("target", value === "leave" ? undefined : value)}
        />
        <ChoiceField
          name="mode"
          label={say.whereTheAuthorWroteSomething}
          options={[
            { value: "fill", word: say.onlyWhereTheAuthorSetNothing },
            { value: "overwrite", word: say.replacingWhatTheAuthorSet },
          ]}
        />
      </div>
    </fieldset>
  );
}
