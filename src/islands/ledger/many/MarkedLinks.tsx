import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { later } from "../../../ui/frame/later.tsx";
import { MarkedBar } from "../../../ui/table/MarkedBar.tsx";
import type { Selection } from "../../../ui/table/use-selection.ts";
import type { LedgerAsked } from "../use-ledger.ts";
import { CHANGE_KINDS, type ChangeKind } from "./change-kinds.ts";
import * as say from "../words.ts";

const ChangeMany = later(async () => (await import("./ChangeMany.tsx")).default);

/** What can be done with the marked links, all at once and undone as one. */
export function MarkedLinks(props: { site: Site; selection: Selection; asked: LedgerAsked; total: number }) {
  const { site, selection, asked, total } = props;
  const [kind, setWay] = useState<ChangeKind>();
  const select = selection.all ? { filter: asked } : { ids: [...selection.ids] };
  const close = (): boolean => {
    setWay(undefined);
    return kind !== undefined;
  };
  return (
    <MarkedBar
      label={say.markedLinks}
      selection={selection}
      total={total}
      onEscape={close}
      actions={CHANGE_KINDS.map(([key, word]) => (
        <button
          key={key}
          className={`action py-0.5 ${kind === key ? "border-accent bg-wash" : ""}`}
          aria-expanded={kind === key}
          onClick={() => setWay(kind === key ? undefined : key)}
        >
          {word}
        </button>
      ))}
    >
      {kind ? (
        <ChangeMany
          key={kind}
          site={site}
          kind={kind}
          select={select as never}
          onDone={() => {
            setWay(undefined);
            selection.clear();
          }}
        />
      ) : null}
    </MarkedBar>
  );
}
