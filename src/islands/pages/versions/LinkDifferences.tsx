import type { linkDifference } from "../../../core/text/difference.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import * as say from "../words.ts";

type Difference = ReturnType<typeof linkDifference>[number];

const TONE: Readonly<Record<string, string>> = { added: "text-good", removed: "text-bad" };
const COLUMNS: readonly Column<Difference>[] = [
  {
    key: "change",
    word: say.whatChanged,
    className: "w-24",
    cellClass: "font-medium",
    cell: ({ change }) => <span className={TONE[change] ?? "text-warn"}>{change}</span>,
  },
  { key: "words", word: say.words, head: true, cell: ({ words }) => words },
  {
    key: "link",
    word: say.beforeAndAfter,
    cellClass: "font-mono text-xs wrap-anywhere",
    cell: ({ before, after }) => (
      <>
        {before ? <del className="block text-bad">{before}</del> : null}
        {after ? <ins className="block text-good no-underline">{after}</ins> : null}
      </>
    ),
  },
];

/** The links that two versions of a page do not share. */
export function LinkDifferences({ links }: { links: readonly Difference[] }) {
  return (
    <DataTable
      label={say.linksThatDiffer}
      rows={links}
      columns={COLUMNS}
      keyOf={(link) => String(links.indexOf(link))}
      rowClass={() => "align-top"}
      isHeadHidden
      dense
    />
  );
}
