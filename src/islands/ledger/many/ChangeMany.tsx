import { useEffect, useRef } from "react";
import type { FieldErrors, Resolver } from "react-hook-form";
import { linkActionSchema, type LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import { MANAGED_TOKENS } from "../../../core/rules/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseField } from "../../../ui/form/choose-fields.tsx";
import { CheckField, SelectField, TextField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { useWork } from "../../../ui/notices/job.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import { useHostOptions } from "../known-hosts.ts";
import { ChangePreview } from "./ChangePreview.tsx";
import { askChange, tellChanged, type Change } from "./use-change.ts";
import type { ChangeKind } from "./change-kinds.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** What the person has filled in so far, of whichever way. */
type Filled = Record<string, string>;

// Each way has its own fields; the others stay empty.
const NAMES = ["find", "replace", "name", "how", "value", "target", ...MANAGED_TOKENS] as const;
const EMPTY: Filled = Object.fromEntries(NAMES.map((name) => [name, ""]));

/** The fields of one way to change many links, and what it would do; nothing is written before the person says so. */
export default function ChangeMany(props: {
  site: Site;
  kind: ChangeKind;
  select: Change["select"];
  onDone: () => void;
}) {
  const { site, kind, select, onDone } = props;
  const preview = useWork<"POST /sites/:site/links/bulk">();
  const run = useWork<"POST /sites/:site/links/bulk">();
  const form = useSavedForm({
    values: { filled: EMPTY, published: false, routes: true },
    resolver: resolverOf(kind),
    isLive: true,
    save({ filled: typed, ...where }: Values) {
      const { data } = actionOf(kind, typed);
      return askChange(site, { select, action: data!, ...where }, false);
    },
    onSaved: (job) => run.start(() => Promise.resolve(job)),
    fieldOf: (path) => path.replace(/^action\.(?:set\.)?/, "filled."),
  });
  const { filled, published, routes } = form.watch();
  const action = actionOf(kind, filled).data;
  const change = action && { select, action, published, routes };
  const question = useDebounced(change ? JSON.stringify(change) : "", 250);
  const { start: startPreview, reset: resetPreview } = preview;
  useEffect(() => {
    if (question) startPreview(() => askChange(site, JSON.parse(question) as Change, true));
    else resetPreview();
  }, [site, question, startPreview, resetPreview]);
  const told = useRef<LinkBulkAnswer>(undefined);
  useEffect(() => {
    if (run.state !== "done" || !run.result || told.current === run.result) return;
    told.current = run.result;
    tellChanged(site, run.result);
    onDone();
  }, [run.state, run.result, site, onDone]);
  const answer = question && preview.state === "done" ? preview.result : undefined;
  const changed = answer ? answer.links + answer.routes + answer.elsewhere : 0;
  // Their labels stand above the fields; what has none stands level with them.
  const hasFields = kind !== "clear-overrides" && kind !== "shorten";
  const touchesRoutes = kind === "destination" || kind === "host" || kind === "parameter";
  return (
    <Form of={form} needs="editor" label={say.changeTheMarkedLinks} className="grid gap-2">
      <div className="flex flex-wrap items-start gap-x-3 gap-y-2">
        <Fields site={site} kind={kind} filled={filled} />
        <div className={`flex flex-wrap items-center gap-3 ${hasFields ? "mt-6 min-h-8" : ""}`}>
          {touchesRoutes ? (
            <CheckField name="routes">
              {kind === "parameter" ? say.inTheRoutesThatTheyGoThrough : say.inRoutesToo}
            </CheckField>
          ) : null}
          <CheckField name="published">{say.inWhatReadersGetToo}</CheckField>
          <SaveButton of={form} className="py-0.5" disabled={changed === 0 || run.state === "running"}>
            {changed > 0 ? say.change(count(changed)) : say.change2}
          </SaveButton>
        </div>
      </div>
      <p className="text-sm text-quiet">
        {published ? say.publishedPagesChangeAtOnceAndEach : say.draftsChangeReadersGoOnGettingWhat}
      </p>
      <WorkBar work={run} label={say.changing} />
      {run.state === "running" ? null : <WorkBar work={preview} label={say.looking} />}
      {answer ? <ChangePreview answer={answer} /> : null}
    </Form>
  );
}

function Fields({ site, kind, filled }: { site: Site; kind: ChangeKind; filled: Filled }) {
  const hosts = useHostOptions(site);
  const text = (name: string, label: string, width = "w-72") => (
    <TextField name={`filled.${name}`} label={label} mono className={`py-0.5 ${width}`} />
  );
  const choice = (name: string, label: string, options: readonly (readonly [string, string])[]) => (
    <SelectField
      key={name}
      name={`filled.${name}`}
      label={label}
      className="w-auto py-0.5"
      options={options}
    />
  );
  const host = (name: string, label: string) => (
    <ChooseField name={`filled.${name}`} label={label} className="w-72" isFree options={hosts} />
  );
  switch (kind) {
    case "override":
      return (
        <>
          {choice("target", "tab", [
            ["", "leave"],
            ["new", "new"],
            ["same", "same"],
            ["clear", say.byTheRules],
          ])}
          {MANAGED_TOKENS.map((token) =>
            choice(token, token, [
              ["", "leave"],
              ["on", "on"],
              ["off", "off"],
              ["clear", say.byTheRules],
            ]),
          )}
        </>
      );
    case "destination":
      return (
        <>
          {text("find", say.linksTo)}
          {text("replace", say.leadTo)}
        </>
      );
    case "host":
      return (
        <>
          {host("find", say.linksToTheHost)}
          {host("replace", say.goToTheHost)}
        </>
      );
    case "parameter":
      return (
        <>
          {text("name", say.parameter, "w-36")}
          {choice("how", say.whatBecomesOfIt, [
            ["", say.isSetTo],
            ["add", say.isSetOrAddedAs],
            ["remove", say.isRemoved],
          ])}
          {filled.how === "remove" ? null : text("value", say.value, "w-36")}
        </>
      );
    case "clear-overrides":
    case "shorten":
      return null;
  }
}

// The action that is filled in, or what is missing or wrong.
function actionOf(kind: ChangeKind, filled: Filled) {
  const { name, value = "", how, find, replace } = filled;
  const set = Object.fromEntries(
    ["target", ...MANAGED_TOKENS].flatMap((one) => (filled[one] ? [[one, filled[one]]] : [])),
  );
  return linkActionSchema.safeParse(
    kind === "override"
      ? { do: kind, set }
      : kind === "parameter"
        ? { do: kind, name, value: how === "remove" ? null : value, add: how === "add" }
        : kind === "destination" || kind === "host"
          ? { do: kind, find, replace }
          : { do: kind },
  );
}

interface Values {
  filled: Filled;
  published: boolean;
  routes: boolean;
}

// What is wrong stands at its field as soon as somebody was there.
function resolverOf(kind: ChangeKind): Resolver<Values> {
  return (values) => {
    const { error } = actionOf(kind, values.filled);
    if (!error) return { values, errors: {} };
    const filled = Object.fromEntries(
      error.issues.map(({ path, message }) => [String(path.at(-1)), { type: "schema", message }]),
    );
    return { values: {}, errors: { filled } as FieldErrors<Values> };
  };
}
