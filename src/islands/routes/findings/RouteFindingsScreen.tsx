import { useQuery } from "@tanstack/react-query";
import { RefreshCw } from "lucide-react";
import type { Site } from "../../../core/sites/site.ts";
import { useWork } from "../../../ui/notices/job.ts";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import type { LintFinding, LintFix } from "../../../core/routes/linted.ts";
import { useBulk } from "../table/use-bulk.ts";
import { asking, refresh } from "../../../ui/client/queries.ts";
import { startJob, messageOf } from "../../../ui/client/api.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const CODE_WORDS: Readonly<Record<string, string>> = {
  loop: say.circles,
  "dead-end": say.deadEnds,
  "answers-badly": say.destinationsThatAnswerBadly,
  chain: say.chains,
  shadowed: say.neverReached,
  page: say.pagesHiddenByARoute,
  near: say.alikeButForLetterCase,
  "same-destination": say.severalShortLinksToOnePlace,
};
const ORDER = Object.keys(CODE_WORDS);

/** What the linter says of the whole table, by kind, each with the step that mends it. */
export function RouteFindingsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="routes/findings" />
      <RouteFindings site={site} />
    </Screen>
  );
}

function RouteFindings({ site }: { site: Site }) {
  const [only, setOnly] = useAddressState("code");
  const lint = useQuery({
    ...asking("GET /sites/:site/routes/lint", { site: site.id }),
    staleTime: 30_000,
  });
  const work = useWork<"POST /sites/:site/routes/health">();
  const applyFix = useBulk(site, () => void refresh("GET /sites/:site/routes/lint"));
  const findings = lint.data?.findings ?? [];
  const codes = ORDER.filter((code) => findings.some((one) => one.code === code));
  const apply = (fixes: readonly LintFix[]): void => {
    const destinations = Object.fromEntries(
      fixes.flatMap((fix) => (fix.destination !== undefined ? [[fix.route, fix.destination]] : [])),
    );
    const gone = fixes.flatMap((fix) => (fix.delete ? [fix.route] : []));
    applyFix.mutate({
      action: {
        do: "mend",
        ...(Object.keys(destinations).length > 0 ? { destinations } : {}),
        ...(gone.length > 0 ? { delete: gone } : {}),
      },
    });
  };
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <p aria-live="polite">
          {lint.data
            ? findings.length === 0
              ? say.allRoutesAreInOrder(count(lint.data.routes))
              : say.findingsInRoutes(count(findings.length), count(lint.data.routes))
            : say.lookingThroughTheTable}
        </p>
        <button
          data-needs="editor"
          className="action"
          disabled={work.state === "running"}
          onClick={() =>
            work.start(() => startJob("POST /sites/:site/routes/health", { site: site.id, body: {} }))
          }
        >
          <RefreshCw size={14} aria-hidden /> {say.checkAllDestinationsNow}
        </button>
        <WorkBar work={work} label={say.askingDestinations} />
        {work.result ? (
          <span className="text-sm text-quiet">
            {say.lookedAtAnswerBadly(work.result.checked, work.result.bad)}{" "}
            <button className="text-accent underline" onClick={() => void lint.refetch()}>
              {say.readTheTableAgain}
            </button>
          </span>
        ) : null}
      </div>
      {lint.isError ? <p className="text-bad">{messageOf(lint.error)}</p> : null}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-5">
        {codes
          .filter((code) => !only || only === code)
          .map((code) => {
            const here = findings.filter((one) => one.code === code);
            const fixes = here.flatMap(({ fix }) => (fix && "destination" in fix ? [fix] : []));
            return (
              <section key={code} aria-labelledby={`code-${code}`}>
                <div className="mb-1 flex flex-wrap items-baseline gap-3">
                  <h2 id={`code-${code}`} className="font-semibold">
                    {CODE_WORDS[code]}
                  </h2>
                  <span className="text-sm text-quiet">{here.length}</span>
                  {fixes.length > 1 ? (
                    <button
                      data-needs="editor"
                      className="action py-0.5 text-sm"
                      disabled={applyFix.isPending}
                      onClick={() => apply(fixes)}
                    >
                      {say.fixInOneStep(fixes.length)}
                    </button>
                  ) : null}
                  {only ? (
                    <button className="text-sm text-accent underline" onClick={() => setOnly("")}>
                      {say.showAllKinds}
                    </button>
                  ) : null}
                </div>
                <ul>
                  {here.slice(0, 200).map((finding) => (
                    <Finding
                      key={finding.code + finding.routes.join() + finding.message}
                      site={site}
                      finding={finding}
                      busy={applyFix.isPending}
                      onFix={(fix) => apply([fix])}
                    />
                  ))}
                </ul>
                {here.length > 200 ? (
                  <p className="text-sm text-quiet">{say.theFirst200OfAreShown(here.length)}</p>
                ) : null}
              </section>
            );
          })}
      </div>
    </>
  );
}

const TONE = { error: "text-bad", warning: "text-warn", hint: "text-quiet" } as const;

function Finding(props: { site: Site; finding: LintFinding; busy: boolean; onFix: (fix: LintFix) => void }) {
  const { site, finding, busy, onFix } = props;
  const { severity, message, routes, fix } = finding;
  return (
    <li className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-line/60 py-1.5">
      <span className={`w-16 text-sm font-medium ${TONE[severity]}`}>{severity}</span>
      <span className="min-w-0 grow basis-80 break-words">{message}</span>
      {fix ? (
        <button
          data-needs="editor"
          className="action max-w-full truncate py-0.5 text-sm"
          disabled={busy}
          onClick={() => onFix(fix)}
        >
          {fix.label}
        </button>
      ) : null}
      {routes.slice(0, 2).map((id, index) => (
        <a key={id} className="text-sm text-accent underline" href={`/${site.key}/routes?open=${id}`}>
          {index === 0 ? say.open : say.theOther}
        </a>
      ))}
    </li>
  );
}
