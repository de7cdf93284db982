import type { FrontState } from "../../../core/origin/origin.ts";
import type { Site } from "../../../core/sites/site.ts";
import { entriesOf } from "../../../ui/choose/options.ts";
import { api } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { AreaField, RadioField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { HistoryLink } from "../../../ui/links/HistoryLink.tsx";
import { notify } from "../../../ui/notices/notices.ts";
import * as say from "../words.ts";

type Way = "read" | "untouched" | "shadow" | "on";

/** How pages come to readers: not through us, or through us untouched, as a shadow, or changed; it holds at once. */
export function FrontForm({ site, front }: { site: Site; front: FrontState }) {
  const set = (way: Way, { only, here }: Pick<FrontState, "only" | "here">) =>
    api("PUT /sites/:site/origin/front", {
      site: site.id,
      body: {
        comes: way === "read" ? "read" : "front",
        passes: way === "read" ? "untouched" : way,
        only,
        here,
      },
    });
  const done = (): void => {
    notify(say.saved);
    void refresh("GET /sites/:site/origin/front");
  };
  const form = useSavedForm({
    values: {
      way: (front.comes === "read" ? "read" : front.passes) as Way,
      only: front.only.join("\n"),
      here: front.here.join("\n"),
    },
    save: ({ way, only, here }) => set(way, { only: entriesOf(only, /\n/), here: entriesOf(here, /\n/) }),
    onSaved: done,
    kept: {
      key: `front:${site.id}`,
      base: JSON.stringify([front.comes, front.passes, front.only, front.here]),
    },
  });
  const isChanging = front.comes === "front" && front.passes === "on";
  return (
    <Form of={form} className="grid gap-3">
      <RadioField
        name="way"
        legend={say.howPagesCome}
        options={[
          { value: "read", word: say.notThroughUs, what: say.notThroughUsWhat },
          { value: "untouched", word: say.untouched, what: say.untouchedWhat },
          { value: "shadow", word: say.asShadow, what: say.asShadowWhat },
          { value: "on", word: say.changed, what: say.changedWhat },
        ]}
      />
      {form.watch("way") === "on" ? (
        <AreaField
          name="only"
          label={say.onlyPaths}
          hint={say.onlyPathsHint}
          mono
          rows={3}
          placeholder={say.suchAsNotes}
        />
      ) : null}
      {form.watch("way") === "read" ? null : (
        <AreaField
          name="here"
          label={say.writtenHereAlone}
          hint={say.writtenHereAloneHint}
          mono
          rows={2}
          placeholder={say.suchAsGuides}
        />
      )}
      <div data-needs="owner" className="flex flex-wrap items-center gap-3">
        <SaveButton of={form}>{say.setIt}</SaveButton>
        {isChanging ? (
          <button type="button" className="action" onClick={() => void set("untouched", front).then(done)}>
            {say.passUntouchedNow}
          </button>
        ) : null}
        <HistoryLink site={site} kind="origin" />
      </div>
    </Form>
  );
}
