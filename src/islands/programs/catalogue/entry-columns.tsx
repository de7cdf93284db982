import { useMutation } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import type { CatalogueEntry } from "../../../core/programs/catalogue-entry.ts";
import { consideredProgram } from "../../../core/programs/catalogue-terms.ts";
import type { ProgramFigures } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { money } from "../../../ui/format/format.ts";
import { notify } from "../../../ui/notices/notices.ts";
import type { Column } from "../../../ui/table/DataTable.tsx";
import { commissionWords, STATE_TONE } from "../figures-in-words.ts";
import { refreshPrograms, useProgramChange } from "../use-programs.ts";
import type { CatalogueRow } from "./rows.ts";
import * as say from "../words.ts";

/** What is told of a catalogue's entry, beside what is known of its program here. */
export function entryColumns(site: Site, network: string): Column<CatalogueRow>[] {
  return [
    {
      key: "name",
      word: say.program,
      sort: "up",
      head: true,
      cell: ({ offer, category, about }) => (
        <>
          <span className="font-medium">{offer.name}</span>{" "}
          <span className="text-sm text-quiet">{category}</span>
          <span className="block max-w-lg text-sm text-quiet">{about}</span>
        </>
      ),
    },
    { key: "pays", word: say.pays, cellClass: "whitespace-nowrap", cell: (row) => <Pays row={row} /> },
    {
      key: "epc30",
      word: say.theirEpc,
      sort: "down",
      number: true,
      className: "w-24",
      cell: ({ offer, program, newer }) => (
        <>
          {offer.epc30 ? money(offer.epc30, offer.currency) : "–"}
          {newer.epc ? (
            <Here>{program!.epc.d30 ? money(program!.epc.d30, program!.currency) : say.none}</Here>
          ) : null}
        </>
      ),
    },
    {
      key: "own90",
      word: say.ourEpc,
      sort: "down",
      number: true,
      className: "w-24",
      cellClass: "font-medium",
      cell: ({ program }) => (program?.ownEpc.d90 ? money(program.ownEpc.d90, program.currency) : "–"),
    },
    {
      key: "cookieDays",
      word: say.cookie,
      sort: "down",
      cellClass: "whitespace-nowrap",
      cell: ({ offer, program, newer }) => (
        <>
          {say.days(offer.cookieDays)}
          {newer.cookieDays === undefined ? null : <Here>{say.days(program!.cookieDays)}</Here>}
        </>
      ),
    },
    {
      key: "domains",
      word: say.leadsTo,
      cellClass: "font-mono text-sm",
      cell: ({ offer }) => offer.domains.join(" "),
    },
    {
      key: "known",
      word: say.withYou,
      cellClass: "whitespace-nowrap",
      cell: (row) => <WithYou site={site} network={network} row={row} />,
    },
  ];
}

function Pays({ row: { offer, program } }: { row: CatalogueRow }) {
  const pays = commissionWords(offer);
  const here = program && commissionWords(program);
  return (
    <>
      {pays}
      {here === undefined || here === pays ? null : <Here>{here}</Here>}
    </>
  );
}

function WithYou({ site, network, row }: { site: Site; network: string; row: CatalogueRow }) {
  const { offer, program, newer } = row;
  if (!program) return <Consider site={site} network={network} entry={row.entry!} />;
  return (
    <>
      <a className="inline-block py-[3px] hover:underline" href={`/${site.key}/programs?open=${program.id}`}>
        <span className={STATE_TONE[program.state]}>{program.state}</span>
        {program.name === offer.name ? "" : say.as(program.name)}
      </a>
      {Object.keys(newer).length > 0 ? <TakeTerms site={site} program={program} newer={newer} /> : null}
    </>
  );
}

function Here({ children }: { children: string }) {
  return <span className="block text-xs text-warn">{say.yourRecord(children)}</span>;
}

function Consider({ site, network, entry }: { site: Site; network: string; entry: CatalogueEntry }) {
  const take = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/programs", { site: site.id, body: consideredProgram(entry, network) }),
    onSuccess: (program) => {
      notify(say.standsAmongYourProgramsAsConsidering(program.name));
      return Promise.all([refreshPrograms(), refresh("GET /sites/:site/catalogue")]);
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <button
      data-needs="editor"
      className="action py-0.5 text-sm"
      disabled={take.isPending}
      onClick={() => take.mutate()}
    >
      <Plus size={14} aria-hidden /> {say.considerIt}
    </button>
  );
}

function TakeTerms(props: { site: Site; program: ProgramFigures; newer: CatalogueRow["newer"] }) {
  const { site, program, newer } = props;
  const take = useProgramChange(site, ({ name }) => say.hasTheCataloguesTerms(name));
  return (
    <button
      data-needs="editor"
      className="block min-h-6 text-sm text-accent hover:underline"
      disabled={take.isPending}
      onClick={() => take.mutate({ program, change: newer })}
    >
      {say.takeOverTheseTerms}
    </button>
  );
}
