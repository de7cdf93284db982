import { useQuery } from "@tanstack/react-query";
import type { MissSummary } from "../../core/misses/miss.ts";
import type { MissPolicy, Site, WrittenMissPolicy } from "../../core/sites/site.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { RadioField, TextField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { api } from "../../ui/client/api.ts";
import { count } from "../../ui/format/format.ts";

const CHOICES: readonly { value: MissPolicy["answer"]; word: string; what: string }[] = [
  { value: "help", word: "A page that helps", what: "404, with the closest addresses to choose from." },
  {
    value: "closest",
    word: "The closest address",
    what: "When exactly one is good; else the page that helps.",
  },
  { value: "destination", word: "A chosen address", what: "Always the same, at once or after a notice." },
];

/** What readers get who ask for an unknown address, and what each choice would hide. */
export function MissPolicyForm({ site, hidden }: { site: Site; hidden: MissSummary["hidden"] | undefined }) {
  const current = useQuery(asking("GET /sites/:site", { site: site.id })).data;
  if (!current)
    return <aside className="rounded border border-line bg-sheet p-3 text-quiet">Fetching…</aside>;
  return <PolicyForm key={current.version} site={current} hidden={hidden} />;
}

function PolicyForm({ site, hidden }: { site: Site; hidden: MissSummary["hidden"] | undefined }) {
  const form = useSavedForm({
    values: {
      answer: site.misses.answer as string,
      destination: site.misses.destination ?? "",
      seconds: site.misses.seconds ?? 0,
      text: site.misses.text ?? "",
    },
    save: ({ answer, ...more }) =>
      api("PATCH /sites/:site", {
        site: site.id,
        body: {
          version: site.version,
          misses: (answer === "destination" ? { answer, ...more } : { answer }) as WrittenMissPolicy,
        },
      }),
    onSaved: ({ advice }) => {
      void refresh("GET /sites/:site");
      const [said] = advice ?? [];
      if (said) notify(`Saved what misses get. ${said.message}`, { tone: "failed" });
      else notify("Saved what misses get");
    },
    fieldOf: (path) => path.replace(/^misses\./, ""),
    kept: { key: `misses:${site.id}`, base: String(site.version) },
  });
  const [answer, seconds] = form.watch(["answer", "seconds"]);
  return (
    <aside aria-label="What misses get" className="rounded border border-line bg-sheet p-3">
      <Form
        of={form}
        needs="editor"
        className="grid gap-2"
        actions={
          form.formState.isDirty ? (
            <SaveButton of={form} className="justify-self-start">
              Save
            </SaveButton>
          ) : null
        }
      >
        <RadioField name="answer" legend="What misses get" options={CHOICES} />
        {answer === "destination" ? (
          <>
            <TextField name="destination" label="They arrive at" mono placeholder="/resources or https://…" />
            <TextField
              name="seconds"
              label="After a notice of so many seconds"
              hint="0: at once"
              type="number"
              min={0}
              max={60}
              className="w-24"
            />
            {seconds ? <TextField name="text" label="What the notice says" /> : null}
          </>
        ) : null}
        {answer === "help" ? null : <Hidden answer={answer as MissPolicy["answer"]} hidden={hidden} />}
      </Form>
    </aside>
  );
}

function Hidden({
  answer,
  hidden,
}: {
  answer: MissPolicy["answer"];
  hidden: MissSummary["hidden"] | undefined;
}) {
  return (
    <div className="rounded bg-wash p-2 text-sm">
      <p>
        {answer === "destination"
          ? "Search engines treat a redirect of every unknown address as an error page that pretends not to be one, and readers do not learn that what they wanted is missing."
          : "A reader who meant something else lands on the wrong page without being told."}
      </p>
      {hidden && hidden.addresses > 0 ? (
        <p className="mt-1">
          It would have hidden {count(hidden.addresses)} addresses, asked for {count(hidden.times)} times
          {hidden.ownFaults.length > 0 ? (
            <>
              , among them {hidden.ownFaults.length} that our own pages link to:{" "}
              {hidden.ownFaults.slice(0, 3).map(({ address, from }, index) => (
                <span key={address}>
                  {index > 0 ? ", " : ""}
                  <span className="font-mono">{address}</span> on <span className="font-mono">{from}</span>
                </span>
              ))}
            </>
          ) : null}
          .
        </p>
      ) : null}
    </div>
  );
}
