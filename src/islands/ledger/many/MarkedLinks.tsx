import { useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { MarkedBar } from "../../../ui/table/MarkedBar.tsx";
import type { Selection } from "../../../ui/table/use-selection.ts";
import type { LedgerAsked } from "../use-ledger.ts";
import { ChangeMany } from "./ChangeMany.tsx";
import { WAYS, type Way } from "./ways.ts";

/** What can be done with the marked links, all at once and undone as one. */
export function MarkedLinks(props: { site: Site; selection: Selection; asked: LedgerAsked; total: number }) {
  const { site, selection, asked, total } = props;
  const [way, setWay] = useState<Way>();
  const select = selection.all ? { filter: asked } : { ids: [...selection.ids] };
  const close = (): boolean => {
    setWay(undefined);
    return way !== undefined;
  };
  return (
    <MarkedBar
      label="Marked links"
      selection={selection}
      total={total}
      onEscape={close}
      actions={WAYS.map(([key, word]) => (
        <button
          key={key}
          className={`action py-0.5 ${way === key ? "border-accent bg-wash" : ""}`}
          aria-expanded={way === key}
          onClick={() => setWay(way === key ? undefined : key)}
        >
          {word}
        </button>
      ))}
    >
      {way ? (
        <ChangeMany
          key={way}
          site={site}
          way={way}
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
