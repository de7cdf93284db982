import { createColumnHelper } from "@tanstack/react-table";
import { Copy } from "lucide-react";
import type { Route } from "../../../core/routes/route.ts";
import { isBadHealth } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { HEALTH_WORDS } from "../health-words.ts";
import type { Columns } from "../../../ui/table/columns.ts";
import { RouteSwitch } from "./RouteSwitch.tsx";
import { count, when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const words: Readonly<Record<string, string>> = {
  destination: say.leadsTo,
  title: say.title,
  status: say.answer,
  tags: say.tags,
  health: say.health,
  clicks: say.clicks,
  lastClick: say.last,
  updatedAt: say.changed,
  createdAt: say.made,
  enabled: say.on2,
};

/** What the table of routes can show besides the address. */
export const ROUTE_COLUMNS: Columns = {
  table: "routes",
  words,
  standard: "destination,title,status,health,clicks,lastClick,enabled",
};

const column = createColumnHelper<Route>();
const KIND_WORD = { short: say.shortLink, redirect: "redirect", gone: "gone" } as const;
const MATCH_MARK = { exact: "", prefix: say.andBelow, wildcard: "wildcard", pattern: "pattern" } as const;

/** The table's columns, the address first. */
export function routeColumns(site: Site) {
  return [
    column.accessor("address", {
      header: say.address,
      cell: ({ row }) => <AddressCell route={row.original} />,
    }),
    column.accessor("destination", {
      header: words.destination,
      cell: ({ getValue }) =>
        getValue() ? (
          <AddressText address={getValue()!} most={90} oneLine />
        ) : (
          <span className="text-quiet">{say.nothingGone}</span>
        ),
    }),
    column.accessor("title", {
      header: words.title,
      cell: ({ getValue }) => <span className="line-clamp-1">{getValue()}</span>,
    }),
    column.accessor("status", {
      header: words.status,
      cell: ({ row: { original } }) => (
        <span className="whitespace-nowrap">
          <span className="font-mono text-[0.86em]">
            {original.status === 200 ? say.notice : original.status}
          </span>{" "}
          <span className="text-sm text-quiet">{KIND_WORD[original.kind]}</span>
        </span>
      ),
    }),
    column.accessor("tags", {
      header: words.tags,
      enableSorting: false,
      cell: ({ getValue }) => (
        <span className="flex gap-1">
          {getValue().map((tag) => (
            <button
              key={tag}
              className="rounded bg-sunk px-1.5 text-sm whitespace-nowrap hover:text-accent"
              onClick={() => setAddressState({ tag })}
            >
              {tag}
            </button>
          ))}
        </span>
      ),
    }),
    column.accessor("health", {
      header: words.health,
      cell: ({ getValue }) => <HealthCell health={getValue()} />,
    }),
    column.accessor("clicks", {
      header: words.clicks,
      sortDescFirst: true,
      cell: ({ row: { original } }) => (
        <a
          className="block min-h-6 py-px text-right tabular-nums hover:text-accent hover:underline"
          href={`/${site.key}/clicks?route=${original.id}`}
        >
          {original.counted ? count(original.clicks) : say.notCounted}
        </a>
      ),
    }),
    column.accessor("lastClick", {
      header: words.lastClick,
      sortDescFirst: true,
      cell: ({ getValue }) => <Quiet>{getValue() ? when(getValue()!) : say.never}</Quiet>,
    }),
    column.accessor("updatedAt", {
      header: words.updatedAt,
      sortDescFirst: true,
      cell: ({ getValue }) => <Quiet>{when(getValue())}</Quiet>,
    }),
    column.accessor("createdAt", {
      header: words.createdAt,
      sortDescFirst: true,
      cell: ({ getValue }) => <Quiet>{when(getValue())}</Quiet>,
    }),
    column.accessor("enabled", {
      header: words.enabled,
      enableSorting: false,
      cell: ({ row: { original } }) => <RouteSwitch site={site} route={original} />,
    }),
  ];
}

function AddressCell({ route }: { route: Route }) {
  return (
    <span className="flex items-center gap-1.5">
      <button className="text-left hover:underline" onClick={() => setAddressState({ open: route.id })}>
        <AddressText address={route.url} most={46} oneLine />
      </button>
      {route.match === "exact" ? (
        <button
          className="grid place-items-center text-quiet hover:text-ink"
          aria-label={say.copy2(route.url)}
          onClick={() => void copyText(route.url)}
        >
          <Copy size={13} aria-hidden />
        </button>
      ) : (
        <span className="rounded bg-sunk px-1 text-xs whitespace-nowrap text-quiet">
          {MATCH_MARK[route.match]}
        </span>
      )}
      {timeMark(route) ? (
        <span className="text-xs whitespace-nowrap text-warn">{timeMark(route)}</span>
      ) : null}
    </span>
  );
}

function timeMark({ validFrom, validUntil }: Route): string {
  if (validFrom && Date.parse(validFrom) > Date.now()) return say.from2(when(validFrom));
  if (!validUntil) return "";
  return Date.parse(validUntil) <= Date.now() ? "ended" : say.until2(when(validUntil));
}

function HealthCell({ health }: { health: Route["health"] }) {
  if (!health) return <Quiet>{say.notYet}</Quiet>;
  const good = !isBadHealth(health.verdict);
  return (
    <span
      className={`text-sm whitespace-nowrap ${good ? (health.verdict === "fine" ? "text-good" : "text-warn") : "font-medium text-bad"}`}
      title={`${health.note}, ${when(health.checkedAt)}`}
    >
      {health.verdict === "fine" ? say.well : HEALTH_WORDS[health.verdict]}
    </span>
  );
}

function Quiet({ children }: { children: React.ReactNode }) {
  return <span className="text-sm whitespace-nowrap text-quiet">{children}</span>;
}
