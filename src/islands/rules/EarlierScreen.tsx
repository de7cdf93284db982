import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import type { SetDifference } from "../../core/rules/sets/compare-sets.ts";
import { ruleSentence } from "../../core/rules/sentence.ts";
import { notify } from "../../ui/notices/notices.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { queries, asking, refresh, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** Every set that was in force: what it changed, what it says, and the way back to it. */
export function EarlierScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="rules/earlier" />
      <Earlier site={site} />
    </Screen>
  );
}

function Earlier({ site }: { site: Site }) {
  const [open, setOpen] = useState<number>();
  const versions = useQuery(asking("GET /sites/:site/rules/versions", { site: site.id }));
  if (versions.isError) return <p className="text-bad">{messageOf(versions.error)}</p>;
  if (!versions.data) return <p className="text-quiet">{say.fetching}</p>;
  const { items } = versions.data;
  if (items.length === 0)
    return (
      <p className="rounded border border-dashed border-line py-16 text-center text-quiet">
        {say.noSetHasBeenInForceYet}
      </p>
    );
  const newest = items[0]!.version;
  return (
    <div className="grid items-start gap-6 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_28rem]">
      <ol aria-label={say.setsNewestFirst}>
        {items.map(({ version, createdAt, createdBy, differences }) => (
          <li key={version} className={`border-b border-line/60 py-2 ${open === version ? "bg-wash" : ""}`}>
            <p className="flex flex-wrap items-baseline gap-x-3">
              <button
                className="font-medium hover:underline"
                aria-expanded={open === version}
                onClick={() => setOpen(version)}
              >
                {say.set(version)}
              </button>
              {version === newest ? <span className="text-sm text-good">{say.inForce}</span> : null}
              <span className="text-sm text-quiet">
                {createdBy}, {when(createdAt)}
              </span>
            </p>
            <Differences differences={differences} none={say.theSameRulesAsTheSetBefore} />
          </li>
        ))}
      </ol>
      {open === undefined ? (
        <p className="text-quiet">{say.chooseASetToReadItAnd}</p>
      ) : (
        <OneSet key={open} site={site} version={open} newest={newest} />
      )}
    </div>
  );
}

function OneSet({ site, version, newest }: { site: Site; version: number; newest: number }) {
  const kept = useQuery(asking("GET /sites/:site/rules/versions/:version", { site: site.id, version }));
  const back = useMutation({
    mutationFn: ({ of, over }: { of: number; over: number }) =>
      api("POST /sites/:site/rules/versions/:version/restore", {
        site: site.id,
        version: of,
        body: { version: over },
      }),
    onSuccess: (saved, from) => {
      void refresh("GET /sites/:site/rules/versions", "GET /sites/:site/rules/versions/:version");
      queries.setQueryData(keyOf("GET /sites/:site/rules", { site: site.id }), saved);
      notify(say.setIsInForceTheSameAs(saved.version), {
        undo: from.of === newest ? undefined : () => back.mutate({ of: newest, over: saved.version }),
      });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  if (kept.isError) return <p className="text-bad">{messageOf(kept.error)}</p>;
  if (!kept.data) return <p className="text-quiet">{say.fetching}</p>;
  const { rules, against } = kept.data;
  return (
    <section
      aria-label={say.set(version)}
      className="grid gap-3 rounded border border-line bg-sheet p-4 lg:sticky lg:top-16"
    >
      <h2 className="font-semibold">{say.set(version)}</h2>
      {version === newest ? null : (
        <>
          <div>
            <h3 className="text-sm font-medium text-quiet">{say.restoringItWouldChange}</h3>
            <Differences differences={against} none={say.nothingItSaysTheSameAsThe} />
          </div>
          <button
            data-needs="editor"
            className="action action-main justify-self-start"
            disabled={back.isPending || against.length === 0}
            onClick={() => back.mutate({ of: version, over: newest })}
          >
            {say.putSetBack(version)}
          </button>
        </>
      )}
      <ol className="list-decimal pl-5">
        {rules.map((rule, index) => (
          <li key={index} className={rule.enabled ? "" : "text-quiet"}>
            <span className="font-medium">{rule.name}</span>
            {rule.enabled ? "" : say.off}
            <p className="text-sm">{ruleSentence(rule)}</p>
          </li>
        ))}
      </ol>
      {rules.length === 0 ? <p className="text-quiet">{say.itHasNoRules}</p> : null}
    </section>
  );
}

function Differences({ differences, none }: { differences: readonly SetDifference[]; none: string }) {
  if (differences.length === 0) return <p className="text-sm text-quiet">{none}</p>;
  return (
    <ul className="text-sm">
      {differences.map(({ change, name, before, after }, index) => (
        <li key={index}>
          “{name}” <span className="font-medium">{change}</span>
          {before && after ? (
            <>
              : <del className="text-bad no-underline">{before}</del>{" "}
              <ins className="text-good no-underline">→ {after}</ins>
            </>
          ) : before || after ? (
            <span className="text-quiet">: {before ?? after}</span>
          ) : null}
        </li>
      ))}
    </ul>
  );
}
