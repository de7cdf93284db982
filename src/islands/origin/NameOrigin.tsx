import type { Site } from "../../core/sites/site.ts";
import { api, startJob } from "../../ui/client/api.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { TextField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

/** Names where the pages of a site stand, and has a first look there. */
export function NameOrigin({ site, isOther = false }: { site: Site; isOther?: boolean }) {
  const form = useSavedForm({
    values: { address: "" },
    save: async ({ address }) => {
      await api("PUT /sites/:site/origin", { site: site.id, body: { address } });
      return startJob("POST /sites/:site/origin/look", { site: site.id });
    },
    // The site is another one from now on, for every part of the screen.
    onSaved: () => location.reload(),
  });
  return (
    <Form of={form} className={isOther ? "grid max-w-xl gap-2" : "grid max-w-xl gap-3 py-8"}>
      {isOther ? null : (
        <>
          <h2 className="text-xl font-semibold">{say.whereDoesTheSiteStand}</h2>
          <p className="text-quiet">{say.nothingIsChangedThere}</p>
        </>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <div className="min-w-0 grow">
          <TextField
            name="address"
            label={say.addressOfTheSite}
            mono
            placeholder={say.suchAsGarden}
            inputMode="url"
            autoComplete="off"
          />
        </div>
        <SaveButton of={form}>{say.lookAtIt}</SaveButton>
      </div>
      {isOther ? <p className="text-sm text-quiet">{say.whatWasReadIsForgotten}</p> : null}
    </Form>
  );
}
