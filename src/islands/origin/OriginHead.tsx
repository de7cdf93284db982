import { Pencil } from "lucide-react";
import { useMutation } from "@tanstack/react-query";
import type { Origin } from "../../core/origin/origin.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf, startJob } from "../../ui/client/api.ts";
import { count, when } from "../../ui/format/format.ts";
import type { Work } from "../../ui/notices/job.ts";
import { notify } from "../../ui/notices/notices.ts";
import { WorkBar } from "../../ui/notices/WorkBar.tsx";
import { PopupButton } from "../../ui/panel/PopupButton.tsx";
import { NameOrigin } from "./NameOrigin.tsx";
import { counted } from "../../ui/format/counted.ts";
import * as say from "./words.ts";

/** Where the pages stand, how far they are read, and what can be done about it. */
export function OriginHead(props: {
  site: Site;
  origin: Origin;
  looking: Work<"POST /sites/:site/origin/look">;
  reading: Work<"POST /sites/:site/origin/round">;
}) {
  const { site, origin, looking, reading } = props;
  const pages = (...states: string[]): number =>
    origin.states.filter(({ state }) => states.includes(state)).reduce((sum, one) => sum + one.pages, 0);
  const [read, waiting, found] = [pages("read", "scripts"), pages("waiting"), pages("found")];
  const isBusy = looking.state === "running" || reading.state === "running";
  const begin = (again: boolean): void =>
    reading.start(() => startJob("POST /sites/:site/origin/round", { site: site.id, body: { again } }));
  const ended = reading.result?.ended;
  return (
    <section className="grid gap-2">
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h2 className="min-w-0 font-mono text-lg font-semibold wrap-anywhere">
          <a className="hover:underline" href={origin.address} target="_blank" rel="noreferrer">
            {origin.address}
          </a>
        </h2>
        <p className="text-sm text-quiet">
          {read > 0 || origin.readAt ? say.read(count(read)) : say.nothingWasReadYet}
          {waiting > 0 ? `, ${say.wait(count(waiting))}` : ""}
          {origin.readAt ? `; ${say.lastRead(when(origin.readAt))}` : ""}
        </p>
        <span data-needs="editor" className="ml-auto flex flex-wrap gap-2">
          {found + waiting > 0 ? (
            <button
              className={origin.readAt ? "action" : "action action-main"}
              disabled={isBusy}
              onClick={() => begin(false)}
            >
              {origin.readAt && waiting > 0
                ? say.readOn
                : say.readThem(counted(Math.min(found + waiting, origin.settings.mostPages), ...say.ofPages))}
            </button>
          ) : null}
          {origin.readAt ? (
            <button className="action" disabled={isBusy} onClick={() => begin(true)}>
              {say.readAllAgain}
            </button>
          ) : null}
          <button
            className="action action-plain"
            disabled={isBusy}
            onClick={() => looking.start(() => startJob("POST /sites/:site/origin/look", { site: site.id }))}
          >
            {say.lookAgain}
          </button>
          <PopupButton label={say.anotherAddress} sign={Pencil} word={say.anotherAddress} className="gap-3">
            <NameOrigin site={site} isOther />
            <Forget site={site} pages={read} />
          </PopupButton>
        </span>
      </div>
      <WorkBar work={looking} label={say.looking} />
      <WorkBar work={reading} label={say.reading} />
      {ended ? <p className="text-warn">{ended}</p> : null}
    </section>
  );
}

function Forget({ site, pages }: { site: Site; pages: number }) {
  const forget = useMutation({
    mutationFn: () => api("DELETE /sites/:site/origin", { site: site.id }),
    onSuccess: () => location.reload(),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <div data-needs="owner" className="grid max-w-xl gap-1 border-t border-line pt-3">
      <button
        className="action justify-self-start"
        disabled={forget.isPending}
        onClick={() => forget.mutate()}
      >
        {say.writtenHereAgain}
      </button>
      <p className="text-sm text-quiet">{say.forgetting(counted(pages, ...say.ofPages))}</p>
    </div>
  );
}
