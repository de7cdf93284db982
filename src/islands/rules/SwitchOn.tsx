import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { later } from "../../ui/frame/later.tsx";
import { notify } from "../../ui/notices/notices.ts";
import type { WorkingSet } from "./use-working-set.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const Timing = later(async () => (await import("./Timing.tsx")).default);

/** Whether the set that is shown is in force, and how it comes into force: at once, or at a time. */
export function SwitchOn({ site, set }: { site: Site; set: WorkingSet }) {
  const [timing, setTiming] = useState(false);
  const { data } = useQuery({
    ...asking("GET /sites/:site/rules/schedule", { site: site.id }),
    refetchInterval: 5_000,
  });
  const refreshRules = (): void => void refresh("GET /sites/:site/rules/schedule", "GET /sites/:site/rules");
  const drop = useMutation({
    mutationFn: () => api("DELETE /sites/:site/rules/schedule", { site: site.id }),
    onSuccess: () => {
      refreshRules();
      notify(say.theWaitingSetWillNotComeInto);
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const waiting = data?.schedule ?? null;
  return (
    <div className="mb-3 grid gap-2">
      <div
        className={`flex flex-wrap items-center gap-2 rounded border px-3 py-2 ${set.isChanged ? "border-accent bg-wash" : "border-line bg-sheet"}`}
      >
        <p className="grow" aria-live="polite">
          {set.isChanged ? (
            <>
              <strong>{say.notInForceYet}</strong> {say.youAreWorkingOverSet(set.base)}
            </>
          ) : (
            <>
              <strong>{say.set(set.inForce!.version)}</strong> {say.isInForce}
            </>
          )}
        </p>
        {set.isChanged ? (
          <>
            <button data-needs="editor" className="action action-plain" onClick={set.discard}>
              {say.discardMyChanges}
            </button>
            <button className="action" aria-expanded={timing} onClick={() => setTiming(!timing)}>
              {say.atATime}
            </button>
            <button
              className="action action-main"
              disabled={set.isSwitching || set.isOvertaken}
              onClick={set.switchOn}
            >
              {say.applyNow}
            </button>
          </>
        ) : null}
      </div>
      {set.isOvertaken ? (
        <p role="alert" className="rounded border border-warn px-3 py-2 text-warn">
          {say.setCameIntoForceWhileYouWorked(set.inForce!.version, set.base)}{" "}
          <a className="underline" href={`/${site.key}/rules/earlier`}>
            {say.seeWhatItChanged}
          </a>
          {say.then}{" "}
          <button className="underline" onClick={set.rebase}>
            {say.goOnOverSet(set.inForce!.version)}
          </button>{" "}
          {say.orTakeYourChangesBack}
        </p>
      ) : null}
      {timing && set.isChanged ? (
        <Timing
          site={site}
          set={set}
          onDone={() => {
            setTiming(false);
            refreshRules();
          }}
        />
      ) : null}
      {waiting ? (
        <p
          className={`flex flex-wrap items-center gap-2 rounded border px-3 py-2 ${waiting.held ? "border-bad text-bad" : "border-line"}`}
        >
          <span className="grow">
            {waiting.held
              ? say.theSetOfThatWasToCome(waiting.madeBy, when(waiting.at), waiting.held)
              : say.aSetOfComesIntoForceBy(
                  waiting.madeBy,
                  when(waiting.at),
                  waiting.differences.map(({ change, name }) => `“${name}” ${change}`).join(", ") ||
                    say.theSameRules,
                )}
          </span>
          <button data-needs="editor" className="action py-0.5" onClick={() => drop.mutate()}>
            {say.cancelIt}
          </button>
        </p>
      ) : null}
    </div>
  );
}
