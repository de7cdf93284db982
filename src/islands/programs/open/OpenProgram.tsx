import { Trash2 } from "lucide-react";
import { useState } from "react";
import type { Program, ProgramFigures } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { HistoryLink } from "../../../ui/links/HistoryLink.tsx";
import { useTitle } from "../../../ui/frame/use-title.ts";
import { SidePanel } from "../../../ui/panel/SidePanel.tsx";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { Payout } from "../directory/columns.tsx";
import { commissionWords, STATE_TONE } from "../figures-in-words.ts";
import { useDeleteProgram, useProgramChange } from "../use-programs.ts";
import { Account } from "./Account.tsx";
import { BuildLink } from "./BuildLink.tsx";
import { Creatives } from "./Creatives.tsx";
import { ProgramForm } from "./ProgramForm.tsx";
import { ProgramLinks, type Become, type TermsBefore } from "./ProgramLinks.tsx";
import { count, day, money } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** One program beside the list: signing in, building links, what it does, its terms. */
export default function OpenProgram({ site, program }: { site: Site; program: ProgramFigures | undefined }) {
  const remove = useDeleteProgram(site);
  const [asking, ask] = useState<{ become: Become; before?: TermsBefore }>();
  const leave = useProgramChange(site, ({ name }) => say.theLinksOfStayAsTheyAre(name));
  const close = (): void => setAddressState({ open: "" });
  // What the links of a closed program become stays a question until it is answered.
  const isOpen = program?.state === "closed" && !program.linksLeft && program.links > program.untracked;
  const saved = (now: Program, before: Program | undefined): void => {
    setAddressState({ open: now.id });
    if (!before) return;
    const [was, is] = [builtFrom(before), builtFrom(now)];
    if (now.state === "closed" && before.state !== "closed") ask({ become: "plain", before: was });
    else if (JSON.stringify(was) !== JSON.stringify(is)) ask({ become: "reissue", before: was });
  };
  useTitle(program?.name);
  return (
    <SidePanel
      label={program ? program.name : say.newProgram}
      of={program?.id ?? ""}
      title={program?.name ?? say.newProgram}
      actions={
        program ? (
          <button
            data-needs="editor"
            className="action action-plain px-1"
            aria-label={say.deleteWord(program.name)}
            onClick={() => remove.mutate(program, { onSuccess: close })}
          >
            <Trash2 size={16} aria-hidden />
          </button>
        ) : null
      }
      onClose={close}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        {program ? (
          <>
            <Summary site={site} program={program} onTrack={() => ask({ become: "track" })} />
            {asking ? (
              <ProgramLinks
                {...asking}
                site={site}
                program={program}
                onDone={() => ask(undefined)}
                onLeave={() => {
                  ask(undefined);
                  if (program.state === "closed" && asking.become === "plain")
                    leave.mutate({ program, change: { linksLeft: true } });
                }}
              />
            ) : isOpen ? (
              <ProgramLinks
                become="plain"
                isStanding
                site={site}
                program={program}
                onDone={() => undefined}
                onLeave={() => leave.mutate({ program, change: { linksLeft: true } })}
              />
            ) : null}
            <Account site={site} program={program} />
            <BuildLink site={site} program={program} />
          </>
        ) : null}
        <ProgramForm key={program?.version ?? 0} site={site} program={program} onSaved={saved} />
        {program ? <Creatives site={site} program={program} /> : null}
        {program ? <HistoryLink site={site} kind="program" object={program.id} /> : null}
      </div>
    </SidePanel>
  );
}

// What a program's links are known by.
function builtFrom({ trackingId, template, domains }: Program): TermsBefore {
  return { trackingId, template, domains };
}

function Summary(props: { site: Site; program: ProgramFigures; onTrack: () => void }) {
  const { site, program, onTrack } = props;
  const { state, stateDates, network, links, untracked, clicks, earned } = program;
  const name = encodeURIComponent(program.name);
  const earlier = Object.entries(stateDates)
    .filter(([one]) => one !== state)
    .sort(([, a], [, b]) => a.localeCompare(b));
  return (
    <div className="grid gap-1 border-b border-line pb-3 text-sm">
      <p>
        <span className={STATE_TONE[state]}>{state}</span>
        {stateDates[state] ? <span className="text-quiet"> {say.since(day(stateDates[state]))}</span> : null}
        {say.pays3(network ? say.on(network) : "", commissionWords(program))}
      </p>
      {earlier.length > 0 ? (
        <p className="text-quiet">{say.before(earlier.map(([one, at]) => `${one} ${day(at)}`).join(", "))}</p>
      ) : null}
      <p>
        <a className="text-accent underline" href={`/${site.key}/ledger?program=${name}`}>
          {links} {links === 1 ? say.link : say.links2}
        </a>
        {untracked > 0 ? (
          <>
            ,{" "}
            <a className="text-warn underline" href={`/${site.key}/ledger?program=${name}&finding=untracked`}>
              {say.withoutTracking(untracked)}
            </a>{" "}
            <button className="text-accent underline" onClick={onTrack}>
              {say.trackThem}
            </button>
          </>
        ) : null}
        ;{" "}
        <a className="text-accent underline" href={`/${site.key}/routes?program=${program.id}`}>
          {say.itsShortLinks}
        </a>{" "}
        {say.wereClickedTimesIn90DaysAnd(count(clicks))}{" "}
        <a className="text-accent underline" href={`/${site.key}/earnings?by=page&program=${program.id}`}>
          {say.earned2(
            earned.map(({ amount, currency }) => money(amount, currency)).join(" + ") || say.nothing,
          )}
        </a>
        .
      </p>
      <Payout program={program} />
    </div>
  );
}
