import { useEffect, useRef } from "react";
import type { LinkBulkAnswer } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { CheckField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { count } from "../../ui/format/format.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { useWork } from "../../ui/notices/job.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { ChangePreview } from "../ledger/many/ChangePreview.tsx";
import { askChange, tellChanged, type Change } from "../ledger/many/use-change.ts";
import * as say from "./words.ts";

const DIRECTORY = /^(?:\/(?:[A-Za-z0-9._~-]+\/)*)?$/;

/** Moves short links from one directory to another: each address before and after first, one undo behind it. */
export function MoveShortLinks({ site }: { site: Site }) {
  const preview = useWork<"POST /sites/:site/links/bulk">();
  const run = useWork<"POST /sites/:site/links/bulk">();
  const changeOf = ({ from, to, host, keepOld, published }: Values): Change => ({
    select: {},
    action: { do: "directory", from, to, host, keepOld },
    published,
    routes: true,
  });
  const hosts = site.hosts.filter(({ role }) => role !== "former");
  const primary = hosts.find(({ role }) => role === "primary")!.name;
  const form = useSavedForm({
    values: { from: site.shortPrefix || "/", to: "", host: primary, keepOld: true, published: true },
    save: (values: Values) => askChange(site, changeOf(values), false),
    onSaved: (job) => run.start(() => Promise.resolve(job)),
    fieldOf: (path) => path.replace(/^action\./, ""),
  });
  const values = form.watch();
  const isSaid = [values.from, values.to].every((one) => DIRECTORY.test(one.trim()) && one.trim() !== "");
  const question = useDebounced(
    isSaid && values.from !== values.to ? JSON.stringify(changeOf(values)) : "",
    300,
  );
  const { start, reset } = preview;
  useEffect(() => {
    if (question) start(() => askChange(site, JSON.parse(question) as Change, true));
    else reset();
  }, [site, question, start, reset]);
  const told = useRef<LinkBulkAnswer>(undefined);
  const { reset: resetForm } = form;
  useEffect(() => {
    if (run.state !== "done" || !run.result || told.current === run.result) return;
    told.current = run.result;
    tellChanged(site, run.result);
    resetForm();
  }, [run.state, run.result, site, resetForm]);
  const answer = question && preview.state === "done" ? preview.result : undefined;
  return (
    <Form of={form} needs="editor" label={say.moveShortLinks} className="grid gap-3">
      <p className="text-sm text-quiet">{say.shortLinksOfThePrimaryHostThat}</p>
      <div className="flex flex-wrap items-start gap-3">
        {hosts.length > 1 ? (
          <SelectField name="host" label={say.onTheHost} options={hosts.map(({ name }) => [name, name])} />
        ) : null}
        <TextField name="from" label={say.from} mono className="w-40" />
        <TextField name="to" label={say.to} mono className="w-40" placeholder={say.go} />
        <div className="mt-6 grid gap-1">
          <CheckField name="keepOld">{say.theOldAddressesAnswerOn}</CheckField>
          <CheckField name="published">{say.publishedPagesFollowAtOnceNotTheir}</CheckField>
        </div>
      </div>
      <WorkBar work={run} label={say.moving} />
      {run.state === "running" ? null : <WorkBar work={preview} label={say.looking} />}
      {answer ? (
        <ChangePreview answer={answer} none={say.noShortLinkOfBeginsWith(values.host, values.from)} />
      ) : null}
      <SaveButton
        of={form}
        isPlain
        className="justify-self-start"
        disabled={!answer || answer.routes === 0 || run.state === "running"}
      >
        {answer && answer.routes > 0 ? say.move(count(answer.routes)) : say.move2}
      </SaveButton>
    </Form>
  );
}

interface Values {
  from: string;
  to: string;
  host: string;
  keepOld: boolean;
  published: boolean;
}
