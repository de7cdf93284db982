import { useMutation } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import type { ProgramFigures } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { consideredProgram, type CatalogueEntry } from "../../../core/programs/catalogue.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { SortHead } from "../../../ui/table/SortHead.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { commissionWords, money, STATE_TONE } from "../figures-in-words.ts";
import { refreshPrograms, useProgramChange, usePrograms } from "../use-programs.ts";
import { catalogueRows, sortedRows, type CatalogueRow } from "./rows.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { api, messageOf, type Answer } from "../../../ui/client/api.ts";

/** What a catalogue answered. */
export type CatalogueAnswer = Answer<"GET /sites/:site/catalogue">;

/** The entries of a catalogue beside what is joined already, to be compared and taken over. */
export function Entries(props: { site: Site; network: string; answer: CatalogueAnswer }) {
  const { site, network, answer } = props;
  const [sort, setSort] = useAddressState("sort");
  const [besides, setBesides] = useAddressState("besides");
  const programs = usePrograms(site).data ?? [];
  const rows = sortedRows(catalogueRows(answer.items, programs, besides !== ""), sort);
  const head = { sort, setSort, downFirst: true };
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm text-quiet">
        <p>
          {answer.items.length === 0
            ? "No entry of the catalogue has these words"
            : `${answer.total.toLocaleString("en-GB")} entries`}
          {answer.total > answer.items.length ? `; the first ${answer.items.length} are shown` : ""}
          {answer.refused.length > 0
            ? `; ${answer.refused.length} could not be read (the first: entry ${answer.refused[0]!.line}, ${answer.refused[0]!.message})`
            : ""}
          .
        </p>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={besides !== ""}
            onChange={(event) => setBesides(event.target.checked ? "1" : "")}
          />
          Beside the programs you have joined
        </label>
      </div>
      <table className="w-full text-left">
        <thead className="text-sm text-quiet">
          <tr className="border-b border-line">
            <SortHead field="name" sort={sort} setSort={setSort}>
              Program
            </SortHead>
            <Head>Pays</Head>
            <SortHead field="epc30" className="w-24 text-right" {...head}>
              Their EPC
            </SortHead>
            <SortHead field="own90" className="w-24 text-right" {...head}>
              Our EPC
            </SortHead>
            <SortHead field="cookieDays" {...head}>
              Cookie
            </SortHead>
            <Head>Leads to</Head>
            <Head>With you</Head>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Row key={row.key} site={site} network={network} row={row} />
          ))}
        </tbody>
      </table>
    </>
  );
}

function Row({ site, network, row }: { site: Site; network: string; row: CatalogueRow }) {
  const { offer, program, newer } = row;
  const isJoined = row.entry === undefined;
  const pays = commissionWords(offer);
  const paysHere = program && commissionWords(program);
  return (
    <tr className={`border-b border-line/60 align-top ${isJoined ? "bg-wash" : ""}`}>
      <td className="py-1.5 pr-3">
        <span className="font-medium">{offer.name}</span>{" "}
        <span className="text-sm text-quiet">{row.category}</span>
        <span className="block max-w-lg text-sm text-quiet">{row.about}</span>
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap">
        {pays}
        {paysHere === undefined || paysHere === pays ? null : <Here>{paysHere}</Here>}
      </td>
      <td className="py-1.5 pr-3 text-right tabular-nums">
        {offer.epc30 ? money(offer.epc30, offer.currency) : "–"}
        {newer.epc ? (
          <Here>{program!.epc.d30 ? money(program!.epc.d30, program!.currency) : "none"}</Here>
        ) : null}
      </td>
      <td className="py-1.5 pr-3 text-right tabular-nums font-medium">
        {program?.ownEpc.d90 ? money(program.ownEpc.d90, program.currency) : "–"}
      </td>
      <td className="py-1.5 pr-3 whitespace-nowrap">
        {offer.cookieDays} days
        {newer.cookieDays === undefined ? null : <Here>{`${program!.cookieDays} days`}</Here>}
      </td>
      <td className="py-1.5 pr-3 font-mono text-sm">{offer.domains.join(" ")}</td>
      <td className="py-1.5 whitespace-nowrap">
        {program ? (
          <a className="hover:underline" href={`/${site.key}/programs?open=${program.id}`}>
            <span className={STATE_TONE[program.state]}>{program.state}</span>
            {program.name === offer.name ? "" : ` as ${program.name}`}
          </a>
        ) : (
          <Consider site={site} network={network} entry={row.entry!} />
        )}
        {program && Object.keys(newer).length > 0 ? (
          <TakeTerms site={site} program={program} newer={newer} />
        ) : null}
      </td>
    </tr>
  );
}

function Head({ children }: { children: string }) {
  return (
    <th scope="col" className="py-1.5 pr-3 font-medium">
      {children}
    </th>
  );
}

function Here({ children }: { children: string }) {
  return <span className="block text-xs text-warn">your record: {children}</span>;
}

function Consider({ site, network, entry }: { site: Site; network: string; entry: CatalogueEntry }) {
  const take = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/programs", { site: site.id, body: consideredProgram(entry, network) }),
    onSuccess: (program) => {
      notify(`${program.name} stands among your programs as “considering”`);
      return Promise.all([refreshPrograms(), refresh("GET /sites/:site/catalogue")]);
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <button className="action py-0.5 text-sm" disabled={take.isPending} onClick={() => take.mutate()}>
      <Plus size={14} aria-hidden /> Consider it
    </button>
  );
}

function TakeTerms(props: { site: Site; program: ProgramFigures; newer: CatalogueRow["newer"] }) {
  const { site, program, newer } = props;
  const take = useProgramChange(site, ({ name }) => `${name} has the catalogue’s terms`);
  return (
    <button
      className="block text-sm text-accent hover:underline"
      disabled={take.isPending}
      onClick={() => take.mutate({ program, change: newer })}
    >
      Take over these terms
    </button>
  );
}
