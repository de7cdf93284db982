import { Copy } from "lucide-react";
import type { SiteFile } from "../../core/files/file.ts";
import { bytes, when } from "../../ui/format/format.ts";
import { copyText } from "../../ui/keys/copy.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import * as say from "./words.ts";

/** The site's files: what each is, and how many pages would miss it. */
export function FileTable(props: {
  items: SiteFile[];
  open: string;
  onOpen: (id: string) => void;
  sort: string;
  setSort: (sort: string) => void;
}) {
  const { items, open, onOpen } = props;
  const columns: Column<SiteFile>[] = [
    {
      key: "picture",
      word: <span className="sr-only">{say.picture}</span>,
      className: "w-16 min-w-15",
      cell: ({ mediaType, url }) =>
        mediaType.startsWith("image/") ? (
          <img src={url} alt="" loading="lazy" className="h-9 w-12 max-w-none rounded-sm object-cover" />
        ) : null,
    },
    {
      key: "name",
      word: say.name,
      sort: "up",
      head: true,
      cell: ({ id, name }) => (
        <button
          className="text-left font-medium hover:text-accent hover:underline"
          onClick={() => onOpen(id)}
        >
          {name}
        </button>
      ),
    },
    {
      key: "path",
      word: say.path,
      sort: "up",
      cellClass: "font-mono text-[0.86em] text-quiet",
      cell: ({ path, name }) => (
        <>
          {path}{" "}
          <button
            className="text-quiet hover:text-ink"
            aria-label={say.copyThePathOf(name)}
            onClick={() => void copyText(path)}
          >
            <Copy size={13} aria-hidden />
          </button>
        </>
      ),
    },
    {
      key: "bytes",
      word: say.size,
      sort: "down",
      cellClass: "whitespace-nowrap",
      cell: (file) => (
        <>
          {bytes(file.bytes)}
          {file.width ? (
            <span className="text-quiet">
              {" "}
              {file.width} × {file.height}
            </span>
          ) : null}
        </>
      ),
    },
    {
      key: "uses",
      word: say.used,
      cell: ({ uses }) =>
        uses === 0 ? <span className="text-quiet">{say.nowhere}</span> : say.onPages(uses),
    },
    {
      key: "createdAt",
      word: say.uploaded,
      sort: "down",
      className: "max-sm:hidden",
      cellClass: "text-sm text-quiet",
      cell: ({ createdAt }) => when(createdAt),
    },
  ];
  return (
    <DataTable
      label={say.files}
      rows={items}
      columns={columns}
      keyOf={({ id }) => id}
      sort={props.sort}
      setSort={props.setSort}
      rowClass={({ id }) => (id === open ? "bg-wash" : "hover:bg-sheet")}
      isLong
    />
  );
}
