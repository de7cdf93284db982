import { useMutation } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { api, hrefOf, messageOf } from "../../ui/client/api.ts";
import { TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { when } from "../../ui/format/format.ts";
import { notify } from "../../ui/notices/notices.ts";
import * as say from "./words.ts";

/** What is done with a site as a whole: exported, put to rest and woken, and taken away for good. */
export function WholeSite({ site }: { site: Site }) {
  const { archivedAt } = site;
  const rests = archivedAt !== null;
  const rest = useMutation({
    mutationFn: () => api(rests ? "POST /sites/:site/wake" : "POST /sites/:site/rest", { site: site.id }),
    // The whole frame says whether a site rests, and what can be done in it.
    onSuccess: () => location.reload(),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <div className="grid justify-items-start gap-3">
      <p data-needs="owner" data-even-at-rest className="text-sm">
        <a className="action inline-flex" href={hrefOf("GET /sites/:site/whole", { site: site.id })} download>
          {say.exportTheWholeSite}
        </a>{" "}
        <span className="text-quiet">{say.pagesRoutesRulesFilesProgramsClicksAnd}</span>
      </p>
      <p className="text-sm">
        <button
          data-needs="owner"
          data-even-at-rest
          className="action"
          disabled={rest.isPending}
          onClick={() => rest.mutate()}
        >
          {rests ? say.reopenIt : say.archiveIt}
        </button>{" "}
        <span className="text-quiet">
          {rests
            ? say.archivedSinceReadersGetWhatTheyGot(when(archivedAt))
            : say.readersGetWhatTheyGotAndNothing}
        </span>
      </p>
      {rests ? <DeleteSite site={site} /> : null}
    </div>
  );
}

function DeleteSite({ site }: { site: Site }) {
  const form = useSavedForm({
    values: { key: "" },
    save: ({ key }) => api("DELETE /sites/:site", { site: site.id, body: { key } }),
    onSaved: () => location.assign("/"),
  });
  return (
    <Form
      of={form}
      needs="owner"
      evenAtRest
      label={say.deleteTheSite}
      className="flex flex-wrap items-start gap-3"
    >
      <TextField
        name="key"
        label={say.typeToDeleteItForGood(site.key)}
        hint={say.exportItFirstNothingOfItCan}
        mono
        className="w-64"
      />
      <SaveButton of={form} isPlain className="mt-6 text-bad">
        {say.deleteWord(site.name)}
      </SaveButton>
    </Form>
  );
}
