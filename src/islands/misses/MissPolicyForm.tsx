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
import * as say from "./words.ts";

const CHOICES: readonly { value: MissPolicy["answer"]; word: string; what: string }[] = [
  { value: "help", word: say.aPageThatHelps, what: say.n404WithTheClosestAddressesToChoose },
  {
    value: "closest",
    word: say.theClosestAddress,
    what: say.whenExactlyOneIsGoodElseThe,
  },
  { value: "destination", word: say.aChosenAddress, what: say.alwaysTheSameAtOnceOrAfter },
];

/** What readers get who ask for an unknown address, and what each choice would hide. */
export function MissPolicyForm({ site, hidden }: { site: Site; hidden: MissSummary["hidden"] | undefined }) {
  const current = useQuery(asking("GET /sites/:site", { site: site.id })).data;
  if (!current)
    return <aside className="rounded border border-line bg-sheet p-3 text-quiet">{say.fetching}</aside>;
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
      if (said) notify(say.savedWhatMissesGet(said.message), { tone: "failed" });
      else notify(say.savedWhatMissesGet2);
    },
    fieldOf: (path) => path.replace(/^misses\./, ""),
    kept: { key: `misses:${site.id}`, base: String(site.version) },
  });
  const [answer, seconds] = form.watch(["answer", "seconds"]);
  return (
    <aside aria-label={say.whatMissesGet} className="rounded border border-line bg-sheet p-3">
      <Form
        of={form}
        needs="editor"
        className="grid gap-2"
        actions={
          form.formState.isDirty ? (
            <SaveButton of={form} className="justify-self-start">
              {say.save}
            </SaveButton>
          ) : null
        }
      >
        <RadioField name="answer" legend={say.whatMissesGet} options={CHOICES} />
        {answer === "destination" ? (
          <>
            <TextField name="destination" label={say.theyArriveAt} mono placeholder={say.resourcesOrHttps} />
            <TextField
              name="seconds"
              label={say.afterANoticeOfSoManySeconds}
              hint={say.n0AtOnce}
              type="number"
              min={0}
              max={60}
              className="w-24"
            />
            {seconds ? <TextField name="text" label={say.whatTheNoticeSays} /> : null}
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
          ? say.searchEnginesTreatARedirectOfEvery
          : say.aReaderWhoMeantSomethingElseLands}
      </p>
      {hidden && hidden.addresses > 0 ? (
        <p className="mt-1">
          {say.itWouldHaveHiddenAddressesAskedFor(count(hidden.addresses), count(hidden.times))}
          {hidden.ownFaults.length > 0 ? (
            <>
              {say.amongThemThatOurOwnPagesLink(hidden.ownFaults.length)}{" "}
              {hidden.ownFaults.slice(0, 3).map(({ address, from }, index) => (
                <span key={address}>
                  {index > 0 ? ", " : ""}
                  <span className="font-mono">{address}</span> {say.on}{" "}
                  <span className="font-mono">{from}</span>
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
