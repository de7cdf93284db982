import { createColumnHelper, flexRender, getCoreRowModel, useReactTable } from "@tanstack/react-table";
import { Copy } from "lucide-react";
import { useMemo } from "react";
import type { Route } from "../../core/objects/route.ts";
import type { Site } from "../../core/objects/site.ts";
import { AddressText } from "../../ui/AddressText.tsx";
import { copyText } from "../../ui/copy.ts";
import { SortHead } from "../../ui/SortHead.tsx";
import { setAddressState } from "../../ui/url-state.ts";
import { when } from "../../ui/when.ts";
import { RouteSwitch } from "./RouteSwitch.tsx";

const column = createColumnHelper<Route>();
// What is left of the width goes to the destination and, if there is room, the title.
const HEAD_CLASS: Readonly<Record<string, string>> = {
  clicks: "text-right",
  destination: "w-[55%]",
  title: "w-[25%] max-lg:hidden",
};
const CELL_CLASS: Readonly<Record<string, string>> = {
  destination: "max-w-0",
  title: "max-w-0 max-lg:hidden",
};
const KIND_WORD = { short: "short link", redirect: "redirect", gone: "gone" } as const;

/** The routes as a table; a row opens beside it. */
export function RoutesTable(props: {
  site: Site;
  routes: Route[];
  narrow: boolean;
  openId: string;
  sort: string;
  setSort: (sort: string) => void;
}) {
  const { site, narrow } = props;
  const columns = useMemo(
    () => [
      column.accessor("address", {
        header: "Address",
        cell: ({ row: { original } }) => (
          <span className="flex items-center gap-1.5">
            <button
              className="text-left hover:underline"
              onClick={() => setAddressState({ open: original.id })}
            >
              <AddressText address={original.url} most={46} oneLine />
            </button>
            <button
              className="text-quiet hover:text-ink"
              aria-label={`Copy ${original.url}`}
              onClick={() => void copyText(original.url)}
            >
              <Copy size={13} aria-hidden />
            </button>
          </span>
        ),
      }),
      column.accessor("destination", {
        header: "Leads to",
        cell: ({ getValue }) =>
          getValue() ? (
            <AddressText address={getValue()!} most={90} oneLine />
          ) : (
            <span className="text-quiet">nothing: gone</span>
          ),
      }),
      column.accessor("title", {
        header: "Title",
        cell: ({ getValue }) => <span className="line-clamp-1">{getValue()}</span>,
      }),
      column.accessor("status", {
        header: "Answer",
        cell: ({ row: { original } }) => (
          <span className="whitespace-nowrap">
            <span className="font-mono text-[0.86em]">{original.status}</span>{" "}
            <span className="text-sm text-quiet">{KIND_WORD[original.kind]}</span>
          </span>
        ),
      }),
      column.accessor("clicks", {
        header: "Clicks",
        cell: ({ row: { original } }) => (
          <a
            className="block text-right tabular-nums hover:text-accent hover:underline"
            href={`/${site.key}/clicks?route=${original.id}`}
          >
            {original.counted ? original.clicks.toLocaleString("en-GB") : "not counted"}
          </a>
        ),
      }),
      column.accessor("lastClick", {
        header: "Last",
        cell: ({ getValue }) => (
          <span className="text-sm whitespace-nowrap text-quiet">
            {getValue() ? when(getValue()!) : "never"}
          </span>
        ),
      }),
      column.accessor("enabled", {
        header: "On",
        enableSorting: false,
        cell: ({ row: { original } }) => <RouteSwitch site={site} route={original} />,
      }),
    ],
    [site],
  );
  const table = useReactTable({
    data: props.routes,
    columns,
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
    state: { columnVisibility: { title: !narrow, lastClick: !narrow } },
  });
  return (
    <div className="overflow-x-auto">
      <table className="w-full border-collapse text-left">
        <thead className="text-sm text-quiet">
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b border-line">
              {group.headers.map((header) =>
                header.column.getCanSort() ? (
                  <SortHead
                    key={header.id}
                    field={header.column.id}
                    sort={props.sort}
                    setSort={props.setSort}
                    className={HEAD_CLASS[header.column.id]}
                  >
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </SortHead>
                ) : (
                  <th key={header.id} scope="col" className="py-1.5 pr-3 font-medium">
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </th>
                ),
              )}
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((row) => (
            <tr
              key={row.id}
              aria-selected={row.original.id === props.openId}
              className={`border-b border-line/60 ${row.original.id === props.openId ? "bg-wash" : "hover:bg-sheet"} ${row.original.enabled ? "" : "opacity-60"}`}
            >
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className={`py-1.5 pr-3 align-middle ${CELL_CLASS[cell.column.id] ?? ""}`}>
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
