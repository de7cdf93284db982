import type { LinkBulkAnswer } from "../../../core/ledger/ledger.ts";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const PLACE_WORD = {
  page: "page",
  block: "block",
  navigation: "navigation",
  route: "route",
  read: say.toDoThere,
  repeated: say.toDoThere,
} as const;

type Row = LinkBulkAnswer["changes"][number] | LinkBulkAnswer["refused"][number];
const isRefused = (row: Row): row is LinkBulkAnswer["refused"][number] => "message" in row;

const INLINE = "@max-2xl:inline-block @max-2xl:py-0";
const COLUMNS: readonly Column<Row>[] = [
  {
    key: "place",
    word: say.place,
    cellClass: `whitespace-nowrap text-quiet ${INLINE}`,
    cell: (row) =>
      isRefused(row)
        ? "stays"
        : `${PLACE_WORD[row.place]}${row.edition === "published" ? ", published" : ""}`,
  },
  {
    key: "where",
    word: say.where,
    cellClass: `max-w-60 truncate font-mono text-[0.9em] ${INLINE} @max-2xl:align-bottom`,
    cell: ({ where }) => where,
  },
  {
    key: "words",
    word: say.words,
    cellClass: `max-w-48 truncate ${INLINE} @max-2xl:align-bottom`,
    cell: (row) => (isRefused(row) ? null : row.words),
  },
  {
    key: "change",
    word: say.beforeAndAfter,
    cellClass: "@max-2xl:block @max-2xl:py-0",
    cell: (row) =>
      isRefused(row) ? (
        row.message
      ) : (
        <>
          <del className="font-mono wrap-anywhere text-bad no-underline">{row.before}</del>{" "}
          <ins className="font-mono wrap-anywhere text-good no-underline">→ {row.after}</ins>
        </>
      ),
  },
];

/** Each change before it is made: where, which words, what stands there and what will. */
export function ChangePreview({
  answer,
  none = say.noneOfTheMarkedLinksWouldChange,
}: {
  answer: LinkBulkAnswer;
  /** What is said where nothing would. */
  none?: string;
}) {
  const { changes, refused, links, pages, routes } = answer;
  const all = links + routes;
  const rows: Row[] = [...changes, ...refused];
  return (
    <div className="grid gap-1">
      <p className="text-sm" aria-live="polite">
        {all === 0 ? (
          none
        ) : (
          <>
            <strong>{count(links)}</strong> {say.inWord(links === 1 ? say.link : say.links3)}{" "}
            <strong>{count(pages)}</strong> {pages === 1 ? say.place2 : say.places}
            {routes > 0 ? (
              <>
                {" "}
                {say.and} <strong>{count(routes)}</strong> {routes === 1 ? say.route : say.routes}
              </>
            ) : null}{" "}
            {say.wouldChange(changes.length < all ? say.theFirstOfThem(changes.length) : ":")}
          </>
        )}
      </p>
      {changes.length + refused.length > 0 ? (
        <div className="@container max-h-64 overflow-auto" tabIndex={0}>
          <DataTable
            label={say.whatWouldChange}
            rows={rows}
            columns={COLUMNS}
            keyOf={(row) => String(rows.indexOf(row))}
            rowClass={(row) =>
              `align-baseline @max-2xl:block @max-2xl:py-1 ${isRefused(row) ? "text-warn" : ""}`
            }
            isHeadHidden
            dense
          />
        </div>
      ) : null}
    </div>
  );
}
