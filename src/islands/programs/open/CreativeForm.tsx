import { useMutation } from "@tanstack/react-query";
import type { Creative } from "../../../core/creatives/creative.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { AreaField, CheckField, TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { ChangePreview } from "../../ledger/many/ChangePreview.tsx";
import { keepCreative } from "./keep-creative.ts";
import { SnippetReading, useSnippetReading } from "./SnippetReading.tsx";
import * as say from "../words.ts";

/** A snippet as it is kept, new or over the one that it was; places that use it follow, after a look at what changes. */
export function CreativeForm(props: {
  site: Site;
  /** The program that the creative is of. */
  program: string;
  creative?: Creative;
  onDone: () => void;
}) {
  const { site, program, creative, onDone } = props;
  const form = useSavedForm({
    values: { name: creative?.name ?? "", html: creative?.html ?? "", published: false },
    save: (typed) =>
      keepCreative(site, program, creative, { ...typed, name: typed.name || suggested }, onDone),
    onSaved: (_, { reset }) => {
      reset({ name: "", html: "", published: false });
      onDone();
    },
  });
  const [name, html, published] = form.watch(["name", "html", "published"]);
  const reading = useSnippetReading(html);
  const suggested = reading?.ok
    ? (reading.snippet.words || reading.snippet.picture?.alt || "").slice(0, 120)
    : "";
  const look = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/links/bulk", {
        site: site.id,
        body: {
          action: { do: "creative", creative: creative?.id ?? "", html },
          published,
          routes: false,
          dryRun: true,
        },
      }),
  });
  const isUsed = creative !== undefined && creative.uses.length > 0;
  return (
    <Form
      of={form}
      needs="editor"
      label={creative ? say.change(creative.name) : say.newCreative}
      className="grid gap-2"
    >
      <AreaField
        name="html"
        label={say.snippet}
        rows={3}
        mono
        error={reading && !reading.ok ? reading.reason : undefined}
        hint={say.whereTheProgramLeavesAPlaceFor}
      />
      {reading?.ok ? (
        <SnippetReading
          snippet={reading.snippet}
          onReplace={(placeholder, by) =>
            form.setValue("html", html.replaceAll(placeholder, by), { shouldDirty: true })
          }
        />
      ) : null}
      <div className="flex flex-wrap items-end gap-2">
        <div className="grow">
          <TextField name="name" label={say.name} placeholder={suggested} />
        </div>
        {isUsed ? (
          <button
            type="button"
            className="action action-plain"
            disabled={look.isPending}
            onClick={() => look.mutate()}
          >
            {say.seeWhatChanges}
          </button>
        ) : null}
        <SaveButton of={form} isPlain disabled={html.trim() === "" || (name || suggested).trim() === ""}>
          {creative ? say.changeIt : say.keepIt}
        </SaveButton>
        {creative ? (
          <button type="button" className="action action-plain" onClick={onDone}>
            {say.leaveIt}
          </button>
        ) : null}
      </div>
      {isUsed ? (
        <CheckField name="published">
          {say.itsInDraftsInWhatReadersGet(
            creative.uses.length === 1 ? say.placeFollows : say.placesFollow(creative.uses.length),
          )}
        </CheckField>
      ) : null}
      {look.isError ? <p className="text-bad">{messageOf(look.error)}</p> : null}
      {look.data ? <ChangePreview answer={look.data} /> : null}
    </Form>
  );
}
