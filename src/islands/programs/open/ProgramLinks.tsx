import { useEffect, useRef, useState } from "react";
import type { LinkAction, LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import type { Program } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseOne } from "../../../ui/choose/choose.tsx";
import { domainNames } from "../../../core/rules/resolve/match.ts";
import { useWork } from "../../../ui/notices/job.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import { ChangePreview } from "../../ledger/many/ChangePreview.tsx";
import { askChange, tellChanged } from "../../ledger/many/use-change.ts";
import { refreshPrograms, usePrograms } from "../use-programs.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Why links of a program change: `plain` asks what those of a closed one become. */
export type Become = Exclude<Extract<LinkAction, { do: "program" }>["become"], "unlink">;
export type TermsBefore = NonNullable<Extract<LinkAction, { do: "program" }>["before"]>;

const ASKS: Readonly<Record<Become, string>> = {
  reissue: say.linksWereBuiltOnTheEarlierTerms,
  track: say.theseLinksLeadToTheProgramWithout,
  plain: say.theProgramIsClosedItsLinksBecome,
};

/** What becomes of a program's links everywhere: in drafts, published pages, navigation, blocks and routes, with one undo. */
export function ProgramLinks(props: {
  site: Site;
  program: Program;
  become: Become;
  before?: TermsBefore;
  /** It stood there before anybody did anything: nothing is to be moved to. */
  isStanding?: boolean;
  onDone: () => void;
  onLeave: () => void;
}) {
  const { site, program, become, before, isStanding = false, onDone, onLeave } = props;
  const [published, setPublished] = useState(false);
  /** What the links of a closed program become: plain, unlinked, or links of the program of this id. */
  const [instead, setInstead] = useState("plain");
  const other = become !== "plain" || instead === "plain" || instead === "unlink" ? undefined : instead;
  const others = (usePrograms(site).data ?? [])
    .filter(({ id, state, template }) => id !== program.id && state === "approved" && template !== "")
    .filter((one) => takesAll(one.domains, program.domains));
  const preview = useWork<"POST /sites/:site/links/bulk">();
  const run = useWork<"POST /sites/:site/links/bulk">();
  const action: LinkAction = {
    do: "program",
    program: program.id,
    become: other ? "reissue" : become === "plain" && instead === "unlink" ? "unlink" : become,
    ...(before ? { before } : {}),
    ...(other ? { other } : {}),
  };
  const asked = JSON.stringify({ select: {}, action, published, routes: true });
  const { start } = preview;
  useEffect(
    () => start(() => askChange(site, JSON.parse(asked) as Parameters<typeof askChange>[1], true)),
    [site, asked, start],
  );
  const told = useRef<LinkBulkAnswer>(undefined);
  useEffect(() => {
    if (run.state !== "done" || !run.result || told.current === run.result) return;
    told.current = run.result;
    tellChanged(site, run.result);
    void refreshPrograms();
    onDone();
  }, [run.state, run.result, site, onDone]);
  // It stands above the form that it follows from, whose lower end is what one was looking at.
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    if (isStanding) return;
    section.current?.scrollIntoView({ block: "center" });
    section.current?.focus({ preventScroll: true });
  }, [isStanding]);
  const answer = preview.state === "done" ? preview.result : undefined;
  const changed = answer ? answer.links + answer.routes : 0;
  return (
    <section
      ref={section}
      tabIndex={-1}
      aria-label={say.whatBecomesOfItsLinks}
      className="grid gap-2 rounded bg-wash p-2"
    >
      <p className="font-medium">{ASKS[become]}</p>
      <div className="flex flex-wrap items-center gap-3">
        {become === "plain" ? (
          <ChooseOne
            attributes={{ "aria-label": say.become }}
            className="w-96 max-w-full"
            value={instead}
            options={[
              { value: "plain", word: say.thePlainAddressOfThePage },
              { value: "unlink", word: say.wordsWithoutALinkShortLinksGo },
              ...others.map(({ id, name }) => ({ value: id, word: say.linksOf(name) })),
            ]}
            onChange={setInstead}
          />
        ) : null}
        <label className="flex items-center gap-1.5 text-sm">
          <input
            type="checkbox"
            checked={published}
            onChange={(event) => setPublished(event.target.checked)}
          />{" "}
          {say.inWhatReadersGetToo}
        </label>
        <button
          data-needs="editor"
          className="action action-main py-0.5"
          disabled={changed === 0 || run.state === "running"}
          onClick={() =>
            run.start(() => askChange(site, JSON.parse(asked) as Parameters<typeof askChange>[1], false))
          }
        >
          {changed > 0 ? say.change2(count(changed)) : say.nothingToChange}
        </button>
        <button className="action action-plain py-0.5" onClick={onLeave}>
          {say.leaveThem}
        </button>
      </div>
      <WorkBar work={run} label={say.changing} />
      {run.state === "running" ? null : <WorkBar work={preview} label={say.looking} />}
      {answer ? <ChangePreview answer={answer} /> : null}
    </section>
  );
}

// A program can take another's links when each of their hosts is one of its own: else they could not be built.
function takesAll(own: readonly string[], others: readonly string[]): boolean {
  return others.every((domain) =>
    domainNames(domain.replace(/^\*\./, "")).some(
      (name) => own.includes(name) && (name.startsWith("*.") || !domain.startsWith("*.")),
    ),
  );
}
