import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { disclosureSchema } from "../../../core/programs/partner.ts";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { useKeptState } from "../../../ui/client/kept-state.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { Toggle } from "../../../ui/fields/Toggle.tsx";
import { api, messageOf, ApiProblem } from "../../../ui/client/api.ts";

/** What readers are told of paid links. */
export function DisclosureScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="rules/disclosure" />
      <Disclosure first={site} />
    </Screen>
  );
}

function Disclosure({ first }: { first: Site }) {
  const [site, setSite] = useState(first);
  const [disclosure, setDisclosure, forget] = useKeptState(
    `disclosure:${first.id}`,
    String(site.version),
    () => first.disclosure,
  );
  const told = disclosureSchema.safeParse(disclosure);
  const isChanged = disclosure.text !== site.disclosure.text || disclosure.place !== site.disclosure.place;
  const save = useMutation({
    mutationFn: () =>
      api("PATCH /sites/:site", { site: site.id, body: { version: site.version, disclosure } }),
    onSuccess: (saved) => {
      setSite(saved);
      setDisclosure(saved.disclosure);
      forget();
      notify("Saved; ledger and delivered pages follow");
    },
    onError: (error) => {
      if (error instanceof ApiProblem && error.status === 409) setSite(error.current as Site);
      notify(messageOf(error), { tone: "failed" });
    },
  });
  return (
    <form
      className="grid max-w-3xl gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (told.success) save.mutate();
      }}
    >
      <p className="text-quiet">
        A link counts as paid when it is marked sponsored or leads to one of your{" "}
        <a className="text-accent underline" href={`/${site.key}/programs`}>
          programs
        </a>
        , through a short link too. Rules can name the program or its network.
      </p>
      <FieldRow
        label="What readers are told"
        error={told.success ? undefined : told.error.issues[0]!.message}
        hint="The page check looks for these words on pages that carry paid links."
      >
        {(attributes) => (
          <textarea
            {...attributes}
            rows={2}
            className="field"
            value={disclosure.text}
            onChange={(event) => setDisclosure({ ...disclosure, text: event.target.value })}
          />
        )}
      </FieldRow>
      <p className="flex items-center gap-2">
        <Toggle
          label="Placed by itself"
          on={disclosure.place}
          disabled={false}
          onChange={(place) => setDisclosure({ ...disclosure, place })}
        />
        Delivered pages that carry paid links say it by themselves, below their title
      </p>
      <div className="flex items-center gap-3">
        <button className="action action-main" disabled={!isChanged || !told.success || save.isPending}>
          Save
        </button>
        <span className="text-sm text-quiet">
          {isChanged ? "Kept in this browser; not saved yet." : "Saved."}
        </span>
      </div>
    </form>
  );
}
