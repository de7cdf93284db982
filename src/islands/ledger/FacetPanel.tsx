import { X } from "lucide-react";
import type { FindingCode } from "../../core/pages/check/finding.ts";
import type { LedgerFacets } from "../../core/ledger/ledger.ts";
import { KIND_WORD } from "../../ui/links/Knot.tsx";
import { FINDING_WORD } from "../../ui/links/link-words.ts";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const PLACE_WORD = {
  page: say.pagesOnes,
  block: say.sharedBlocksOnes,
  navigation: say.navigationOnes,
  read: say.pagesElsewhere,
  repeated: say.onManyPagesElsewhere,
} as const;
const word: Readonly<Record<string, (value: string) => string>> = {
  kind: (value) => KIND_WORD[value as keyof typeof KIND_WORD],
  place: (value) => PLACE_WORD[value as keyof typeof PLACE_WORD],
  target: (value) => (value === "new" ? say.aNewTab : say.theSameTab),
  anchor: (value) => (value === "image" ? "pictures" : "words"),
  finding: (value) => (value === "any" ? say.anyFinding : FINDING_WORD[value as FindingCode]),
};
const FACETS = [
  ["treatment", say.outsideLinksMarked],
  ["finding", say.findings],
  ["host", say.destinationHost],
  ["program", say.program],
  ["rule", say.decidedBy],
  ["kind", say.kind],
  ["target", say.window],
  ["anchor", say.wordsOrPicture],
  ["place", say.whereItStands],
] as const;
const MAX_SHOWN = 8;

/** What the links that are shown can be narrowed to, with counts; what they are narrowed to stands in its place. */
export function FacetPanel({ facets }: { facets: LedgerFacets | undefined }) {
  return (
    <aside
      aria-label={say.narrowTheLinks}
      className="grid grid-cols-[minmax(0,1fr)] content-start gap-3 text-sm"
    >
      {FACETS.map(([name, label]) => (
        <Facet key={name} name={name} label={label} counts={facets?.[name] ?? []} />
      ))}
    </aside>
  );
}

function Facet(props: { name: string; label: string; counts: readonly { value: string; links: number }[] }) {
  const { name, label, counts } = props;
  const [chosen] = useAddressState(name);
  const wordOf = word[name] ?? ((value: string) => value);
  if (counts.length === 0 && !chosen) return null;
  const most = Math.max(1, ...counts.map(({ links }) => links));
  const rows = chosen ? counts.filter(({ value }) => value === chosen) : counts;
  return (
    <section>
      <h2 className="font-medium text-quiet">{label}</h2>
      {chosen ? (
        <button
          className="flex w-full items-center gap-1 rounded bg-wash px-1.5 py-0.5 text-left font-medium"
          onClick={() => setAddressState({ [name]: "" })}
        >
          <span className="sr-only">{say.noLongerOnly}</span>
          <span className="min-w-0 grow truncate">{wordOf(chosen)}</span>
          {rows[0] ? <Count links={rows[0].links} /> : null}
          <X size={13} aria-hidden />
        </button>
      ) : (
        <>
          <ul>
            {rows.slice(0, MAX_SHOWN).map((row) => (
              <FacetRow key={row.value} name={name} row={row} word={wordOf(row.value)} most={most} />
            ))}
          </ul>
          {rows.length > MAX_SHOWN ? (
            <details>
              <summary className="px-1.5 py-[3px] text-quiet">{say.more(rows.length - MAX_SHOWN)}</summary>
              <ul className="max-h-64 overflow-auto">
                {rows.slice(MAX_SHOWN).map((row) => (
                  <FacetRow key={row.value} name={name} row={row} word={wordOf(row.value)} most={most} />
                ))}
              </ul>
            </details>
          ) : null}
        </>
      )}
    </section>
  );
}

function FacetRow(props: {
  name: string;
  row: { value: string; links: number };
  word: string;
  most: number;
}) {
  const { name, row, most } = props;
  return (
    <li>
      <button
        className="relative flex w-full items-baseline gap-2 px-1.5 py-[3px] text-left hover:bg-sheet"
        onClick={() => setAddressState({ [name]: row.value, open: "" })}
      >
        <span
          className="absolute bottom-0 left-1.5 h-[2px] bg-hemp opacity-60"
          style={{ width: `calc((100% - 0.75rem) * ${row.links / most})` }}
          aria-hidden
        />
        <span className="min-w-0 grow truncate">{props.word}</span>
        <Count links={row.links} />
      </button>
    </li>
  );
}

function Count({ links }: { links: number }) {
  return <span className="shrink-0 text-quiet tabular-nums">{count(links)}</span>;
}
