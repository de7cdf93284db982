import { useEffect, useMemo, useRef, useState } from "react";
import { linkActionSchema, type LinkAction, type LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import { MANAGED_TOKENS } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { useWork } from "../../../ui/notices/job.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import { ChangePreview } from "./ChangePreview.tsx";
import { askChange, tellChanged, type Change } from "./use-change.ts";
import type { ChangeKind } from "./change-kinds.ts";

/** What the person has filled in so far, of whichever way. */
type Filled = Record<string, string>;

/** The fields of one way to change many links, and what it would do; nothing is written before the person says so. */
export function ChangeMany(props: {
  site: Site;
  kind: ChangeKind;
  select: Change["select"];
  onDone: () => void;
}) {
  const { site, kind, select, onDone } = props;
  const [filled, setFilled] = useState<Filled>({});
  const [published, setPublished] = useState(false);
  const [routes, setRoutes] = useState(true);
  const preview = useWork<"POST /sites/:site/links/bulk">();
  const run = useWork<"POST /sites/:site/links/bulk">();
  const action = useMemo(() => actionOf(kind, filled), [kind, filled]);
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
  const count = answer ? answer.links + answer.routes : 0;
  const touchesRoutes = kind === "destination" || kind === "host" || kind === "parameter";
  return (
    <form
      className="grid gap-2"
      aria-label="Change the marked links"
      onSubmit={(event) => {
        event.preventDefault();
        if (change && count > 0) run.start(() => askChange(site, change, false));
      }}
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <Fields kind={kind} filled={filled} onChange={setFilled} />
        {touchesRoutes ? (
          <label className="flex items-center gap-1.5 text-sm">
            <input type="checkbox" checked={routes} onChange={(event) => setRoutes(event.target.checked)} />
            {kind === "parameter" ? "in the routes that they go through, too" : "in routes too"}
          </label>
        ) : null}
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            checked={published}
            onChange={(event) => setPublished(event.target.checked)}
          />
          in what readers get, too
        </label>
        <button className="action action-main py-0.5" disabled={count === 0 || run.state === "running"}>
          {count > 0 ? `Change ${count.toLocaleString("en-GB")}` : "Change"}
        </button>
      </div>
      <p className="text-sm text-quiet">
        {published
          ? "Published pages change at once, and each keeps a version of it."
          : "Drafts change; readers go on getting what was published. The navigation has no draft: it changes for readers at once."}
      </p>
      <WorkBar work={run} label="Changing" />
      {run.state === "running" ? null : <WorkBar work={preview} label="Looking" />}
      {answer ? <ChangePreview answer={answer} /> : null}
    </form>
  );
}

function Fields(props: { kind: ChangeKind; filled: Filled; onChange: (filled: Filled) => void }) {
  const { kind, filled, onChange } = props;
  const text = (name: string, label: string, wide = true) => (
    <label className="flex items-center gap-1.5">
      {label}
      <input
        className={`field py-0.5 font-mono text-sm ${wide ? "w-72" : "w-36"}`}
        value={filled[name] ?? ""}
        onChange={(event) => onChange({ ...filled, [name]: event.target.value })}
      />
    </label>
  );
  const choice = (name: string, label: string, options: readonly (readonly [string, string])[]) => (
    <label key={name} className="flex items-center gap-1 font-mono text-sm">
      {label}
      <select
        className="field w-auto py-0.5 font-sans"
        value={filled[name] ?? ""}
        onChange={(event) => onChange({ ...filled, [name]: event.target.value })}
      >
        {options.map(([value, word]) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
      </select>
    </label>
  );
  switch (kind) {
    case "override":
      return (
        <>
          {choice("target", "tab", [
            ["", "leave"],
            ["new", "new"],
            ["same", "same"],
            ["clear", "by the rules"],
          ])}
          {MANAGED_TOKENS.map((token) =>
            choice(token, token, [
              ["", "leave"],
              ["on", "on"],
              ["off", "off"],
              ["clear", "by the rules"],
            ]),
          )}
        </>
      );
    case "destination":
      return (
        <>
          {text("find", "Links to")}
          {text("replace", "lead to")}
        </>
      );
    case "host":
      return (
        <>
          {text("find", "Links to the host")}
          {text("replace", "go to the host")}
        </>
      );
    case "parameter":
      return (
        <>
          {text("name", "Parameter", false)}
          {choice("how", "", [
            ["", "is set to"],
            ["add", "is set or added as"],
            ["remove", "is taken away"],
          ])}
          {filled.how === "remove" ? null : text("value", "", false)}
        </>
      );
    case "clear-overrides":
    case "shorten":
      return null;
  }
}

// The action that is filled in; undefined while something is missing.
function actionOf(kind: ChangeKind, filled: Filled): LinkAction | undefined {
  const set = Object.fromEntries(Object.entries(filled).filter(([, value]) => value !== ""));
  const { name, value = "", how, find, replace } = filled;
  const made =
    kind === "override"
      ? { do: kind, set }
      : kind === "parameter"
        ? { do: kind, name, value: how === "remove" ? null : value, add: how === "add" }
        : kind === "destination" || kind === "host"
          ? { do: kind, find, replace }
          : { do: kind };
  const checked = linkActionSchema.safeParse(made);
  return checked.success ? checked.data : undefined;
}
