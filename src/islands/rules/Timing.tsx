import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { MomentField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { instantOf, isClockTime } from "../../ui/format/clock-time.ts";
import { localeOf, when } from "../../ui/format/format.ts";
import { frameData } from "../../ui/frame/frame.ts";
import { notify } from "../../ui/notices/notices.ts";
import type { WorkingSet } from "./use-working-set.ts";
import * as say from "./words.ts";

/** When the set that is worked on comes into force by itself. */
export default function Timing({ site, set, onDone }: { site: Site; set: WorkingSet; onDone: () => void }) {
  const { timeZone } = localeOf(frameData());
  const form = useSavedForm({
    values: { at: "" },
    save: ({ at }) =>
      api("PUT /sites/:site/rules/schedule", {
        site: site.id,
        body: {
          version: set.base,
          rules: set.rules.map(({ rule }) => rule),
          at: instantOf(at, timeZone),
        },
      }),
    onSaved: (_, { getValues }) => {
      notify(say.thisSetComesIntoForceByItself(when(instantOf(getValues("at"), timeZone))));
      set.discard();
      onDone();
    },
  });
  return (
    <Form of={form} needs="editor" className="flex flex-wrap items-end gap-2">
      <MomentField name="at" label={say.comesIntoForce} />
      <SaveButton of={form} disabled={!isClockTime(form.watch("at"))}>
        {say.letItWaitUntilThen}
      </SaveButton>
    </Form>
  );
}
