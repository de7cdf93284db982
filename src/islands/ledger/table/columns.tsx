import { createColumnHelper } from "@tanstack/react-table";
import { ArrowUpRight } from "lucide-react";
import { isPagePlace, type LedgerLink } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { FINDING_WORD } from "../../../ui/links/link-words.ts";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { wordsOf, wordsPlace } from "../link-place.ts";
import type { Columns } from "../../../ui/table/columns.ts";
import { count } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

const column = createColumnHelper<LedgerLink>();
/** What the ledger can show beside the words of a link. */
export const LEDGER_COLUMNS: Columns = {
  table: "ledger",
  words: {
    page: say.page,
    href: say.whereItLeads,
    host: say.host,
    kind: say.kind,
    treatment: say.treatment,
    rel: say.deliveredRel,
    target: say.tabOfLink,
    stored: say.asWritten,
    rule: say.decidedBy,
    program: say.program,
    short: say.shortLink,
    health: say.health,
    clicks: say.clicks,
    findings: say.findings,
  },
  standard: "page,href,rel,target,findings",
};
const heads = LEDGER_COLUMNS.words;

/** The ledger's columns, the link's own words first. */
export function ledgerColumns(site: Site) {
  return [
    column.accessor("anchor", {
      header: say.wordsOfTheLink,
      cell: ({ row: { original } }) => <WordsCell site={site} link={original} />,
    }),
    column.accessor("page", {
      header: heads.page,
      cell: ({ row: { original } }) => (
        <button
          className="line-clamp-2 max-w-full text-left font-mono text-[0.86em] leading-snug wrap-anywhere hover:underline"
          title={original.title}
          onClick={() => setAddressState({ page: original.page || original.pageId })}
        >
          {isPagePlace(original.place) ? original.page : <em className="font-sans">{original.title}</em>}
          {original.onPages > 0 ? (
            <span className="block font-sans text-quiet">{say.onPages(count(original.onPages))}</span>
          ) : null}
        </button>
      ),
    }),
    column.accessor("href", {
      header: heads.href,
      cell: ({ row: { original } }) => (
        <span className="block leading-snug">
          <span className="line-clamp-2">
            <AddressText address={original.href} most={64} />
          </span>
          {original.destination !== original.href || original.via ? (
            <span className="block truncate text-xs text-quiet" title={original.destination}>
              {say.endsAt2(original.host || say.ourOwnSite)}
            </span>
          ) : null}
        </span>
      ),
    }),
    column.accessor("host", {
      header: heads.host,
      cell: ({ row: { original } }) => (
        <span className="font-mono text-[0.86em]">
          {original.host}
          {original.via ? <span className="block text-quiet">{say.via(original.via)}</span> : null}
        </span>
      ),
    }),
    column.accessor("kind", { header: heads.kind, cell: ({ getValue }) => KIND_WORD[getValue()] }),
    column.accessor("treatment", {
      header: heads.treatment,
      cell: ({ row: { original } }) => (original.host ? original.treatment : <Quiet>{say.inside}</Quiet>),
    }),
    column.accessor(({ delivered }) => delivered.rel.join(" "), {
      id: "rel",
      header: heads.rel,
      cell: ({ row: { original } }) => (
        <span className="block font-mono text-[0.82em] leading-snug">
          {original.delivered.rel.join(" ") || <Quiet>{say.none}</Quiet>}
          {original.override ? <span className="ml-1 font-sans text-accent">{say.byHand2}</span> : null}
        </span>
      ),
    }),
    column.accessor(({ delivered }) => delivered.target, {
      id: "target",
      header: heads.target,
      cell: ({ getValue }) => (
        <span className="text-sm whitespace-nowrap">
          {getValue() === "_blank" ? (
            say.newWord
          ) : getValue() === null ? (
            <Quiet>{say.same}</Quiet>
          ) : (
            getValue()
          )}
        </span>
      ),
    }),
    column.accessor(({ stored }) => stored.rel.join(" "), {
      id: "stored",
      header: heads.stored,
      enableSorting: false,
      cell: ({ row: { original } }) => (
        <span className="font-mono text-[0.82em] text-quiet">
          {[original.stored.rel.join(" "), original.stored.target && `target=${original.stored.target}`]
            .filter(Boolean)
            .join(" ") || "nothing"}
        </span>
      ),
    }),
    column.accessor("rule", {
      header: heads.rule,
      enableSorting: false,
      cell: ({ row: { original } }) => (
        <span className="line-clamp-1 text-sm" title={original.rules.join("\n")}>
          {original.override ? say.setByHand2 : original.rules.join(", ") || <Quiet>{say.nobody}</Quiet>}
        </span>
      ),
    }),
    column.accessor(({ programs }) => programs.join(", "), {
      id: "program",
      header: heads.program,
      enableSorting: false,
    }),
    column.accessor(({ shortLink }) => shortLink?.url ?? "", {
      id: "short",
      header: heads.short,
      enableSorting: false,
      cell: ({ row: { original } }) =>
        original.shortLink ? (
          <span className={original.shortLink.used ? "" : "text-quiet"}>
            <AddressText address={original.shortLink.url} most={34} oneLine />
            {original.shortLink.used ? "" : say.exists}
          </span>
        ) : null,
    }),
    column.accessor("health", {
      header: heads.health,
      enableSorting: false,
      cell: ({ getValue }) => <span className="text-sm">{getValue() ?? ""}</span>,
    }),
    column.accessor("clicks", {
      header: heads.clicks,
      sortDescFirst: true,
      cell: ({ getValue }) => (
        <span className="block text-right tabular-nums">{getValue() === null ? "" : count(getValue()!)}</span>
      ),
    }),
    column.accessor(({ findings }) => findings.length, {
      id: "findings",
      header: heads.findings,
      sortDescFirst: true,
      cell: ({ row: { original } }) => (
        <span
          className="line-clamp-2 text-sm leading-snug text-warn"
          title={findingWords(original).join("\n")}
        >
          {findingWords(original).join(", ")}
        </span>
      ),
    }),
  ];
}

function findingWords({ findings }: LedgerLink): string[] {
  return findings.map((code) => FINDING_WORD[code]);
}

function WordsCell({ site, link }: { site: Site; link: LedgerLink }) {
  return (
    <span className="flex items-center gap-1.5">
      <Knot kind={link.kind} size={14} />
      <button
        className="line-clamp-2 min-w-0 text-left leading-snug font-medium hover:underline"
        title={`${KIND_WORD[link.kind]}: ${wordsOf(link)}`}
        onClick={() => setAddressState({ open: link.id })}
      >
        {wordsOf(link)}
      </button>
      {link.edition === "draft" ? <span className="shrink-0 text-xs text-warn">{say.draft}</span> : null}
      <a
        className="-my-1 shrink-0 p-[5px] text-quiet hover:text-ink"
        aria-label={say.toTheWordsIn2(wordsOf(link), link.title)}
        href={wordsPlace(site, link)}
      >
        <ArrowUpRight size={14} aria-hidden />
      </a>
    </span>
  );
}

function Quiet({ children }: { children: React.ReactNode }) {
  return <span className="text-quiet">{children}</span>;
}
