import { useMutation, useQuery } from "@tanstack/react-query";
import type { MissSummary } from "../../core/misses/miss.ts";
import type { MissPolicy, Site, WrittenMissPolicy } from "../../core/sites/site.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { useKeptState } from "../../ui/client/kept-state.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";

const CHOICES: readonly { answer: MissPolicy["answer"]; word: string; what: string }[] = [
  { answer: "help", word: "A page that helps", what: "404, with the closest addresses to choose from." },
  {
    answer: "closest",
    word: "The closest address",
    what: "When exactly one is good; else the page that helps.",
  },
  { answer: "destination", word: "A chosen address", what: "Always the same, at once or after a notice." },
];

/** What readers get who ask for an unknown address, and what each choice would hide. */
export function MissPolicyForm({ site, hidden }: { site: Site; hidden: MissSummary["hidden"] | undefined }) {
  const current = useQuery(asking("GET /sites/:site", { site: site.id })).data;
  if (!current)
    return <aside className="rounded border border-line bg-sheet p-3 text-quiet">Fetching…</aside>;
  return <Form key={current.version} site={current} hidden={hidden} />;
}

function Form({ site, hidden }: { site: Site; hidden: MissSummary["hidden"] | undefined }) {
  const [policy, setPolicy, forget] = useKeptState<WrittenMissPolicy>(
    `misses:${site.id}`,
    String(site.version),
    () => site.misses,
  );
  const save = useMutation({
    mutationFn: (misses: WrittenMissPolicy) =>
      api("PATCH /sites/:site", {
        site: site.id,
        body: {
          version: site.version,
          misses: misses.answer === "destination" ? misses : { answer: misses.answer },
        },
      }),
    onSuccess: ({ advice }) => {
      forget();
      void refresh("GET /sites/:site");
      const [said] = advice ?? [];
      if (said) notify(`Saved what misses get. ${said.message}`, { tone: "failed" });
      else notify("Saved what misses get");
    },
  });
  const fault =
    save.error instanceof ApiProblem
      ? save.error.errors.find(({ path }) => path === "misses.destination")?.message
      : undefined;
  const changed = JSON.stringify(policy) !== JSON.stringify(site.misses);
  return (
    <aside aria-labelledby="policy" className="rounded border border-line bg-sheet p-3">
      <form
        className="grid gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(policy);
        }}
      >
        <fieldset className="grid gap-2">
          <legend id="policy" className="mb-1 font-semibold">
            What misses get
          </legend>
          {CHOICES.map(({ answer, word, what }) => (
            <label key={answer} className="grid grid-cols-[1.7rem_minmax(0,1fr)]">
              <input
                type="radio"
                name="answer"
                checked={policy.answer === answer}
                onChange={() => setPolicy({ ...policy, answer })}
              />
              <span>
                {word} <span className="block text-sm text-quiet">{what}</span>
              </span>
            </label>
          ))}
        </fieldset>
        {policy.answer === "destination" ? (
          <>
            <FieldRow label="They arrive at" error={fault}>
              {(attributes) => (
                <input
                  {...attributes}
                  className="field font-mono text-sm"
                  placeholder="/resources or https://…"
                  value={policy.destination ?? ""}
                  onChange={(event) => setPolicy({ ...policy, destination: event.target.value })}
                />
              )}
            </FieldRow>
            <FieldRow label="After a notice of so many seconds" hint="0: at once">
              {(attributes) => (
                <input
                  {...attributes}
                  type="number"
                  min={0}
                  max={60}
                  className="field w-24"
                  value={policy.seconds ?? 0}
                  onChange={(event) => setPolicy({ ...policy, seconds: Number(event.target.value) })}
                />
              )}
            </FieldRow>
            {policy.seconds ? (
              <FieldRow label="What the notice says">
                {(attributes) => (
                  <input
                    {...attributes}
                    className="field"
                    value={policy.text ?? ""}
                    onChange={(event) => setPolicy({ ...policy, text: event.target.value })}
                  />
                )}
              </FieldRow>
            ) : null}
          </>
        ) : null}
        {policy.answer !== "help" ? <Hidden answer={policy.answer} hidden={hidden} /> : null}
        {save.isError && !fault ? (
          <p role="alert" className="text-bad">
            {messageOf(save.error)}
          </p>
        ) : null}
        {changed ? (
          <button className="action action-main justify-self-start" disabled={save.isPending}>
            Save
          </button>
        ) : null}
      </form>
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
          It would have hidden {hidden.addresses.toLocaleString("en-GB")} addresses, asked for{" "}
          {hidden.times.toLocaleString("en-GB")} times
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
