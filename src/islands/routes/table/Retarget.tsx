import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../../core/sites/site.ts";
import { TextField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Searches and replaces in the destinations of the marked routes; every change is shown before it is made. */
export function Retarget(props: {
  site: Site;
  select: object;
  busy: boolean;
  onRun: (find: string, replace: string) => void;
}) {
  const { site, select } = props;
  const form = useSavedForm({
    values: { find: "", replace: "" },
    save: (typed) => Promise.resolve(props.onRun(typed.find, typed.replace)),
  });
  const { find, replace } = form.watch();
  const question = useDebounced(
    JSON.stringify({ ...select, action: { do: "retarget", find, replace }, dryRun: true }),
    250,
  );
  const preview = useQuery({
    ...asking("POST /sites/:site/routes/bulk", { site: site.id, body: JSON.parse(question) }),
    enabled: find !== "",
    placeholderData: (previous) => previous,
    retry: false,
  });
  const answer = find === "" ? undefined : preview.data;
  return (
    <Form of={form} needs="editor" label={say.changeDestinations} className="grid gap-2">
      <div className="flex flex-wrap items-start gap-2">
        <TextField name="find" label={say.inDestinationsReplace} mono className="w-60 py-0.5" />
        <TextField name="replace" label={say.withWord} mono className="w-60 py-0.5" />
        <SaveButton
          of={form}
          className="mt-6 py-0.5"
          disabled={!answer || answer.changed === 0 || props.busy}
        >
          {answer ? say.change(count(answer.changed)) : say.change2}
        </SaveButton>
      </div>
      {preview.isError ? <p className="text-sm text-bad">{messageOf(preview.error)}</p> : null}
      {answer ? (
        <ul aria-label={say.whatWouldChange} className="max-h-52 overflow-auto text-sm">
          {answer.samples.map(({ id, address, before, after }) => (
            <li key={id} className="border-b border-line/60 py-0.5">
              <span className="font-mono font-semibold">{address}</span>{" "}
              <del className="font-mono wrap-anywhere text-bad no-underline">{before}</del>{" "}
              <ins className="font-mono wrap-anywhere text-good no-underline">→ {after}</ins>
            </li>
          ))}
          {answer.refused.map(({ id, address, message }) => (
            <li key={id} className="py-0.5 text-warn">
              <span className="font-mono font-semibold">{address}</span> {say.stays(message)}
            </li>
          ))}
          {answer.changed === 0 && answer.refused.length === 0 ? (
            <li className="text-quiet">{say.noneOfTheMarkedRoutesHasIn(find)}</li>
          ) : null}
        </ul>
      ) : null}
    </Form>
  );
}
