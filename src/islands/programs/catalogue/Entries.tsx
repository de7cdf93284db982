import type { Site } from "../../../core/sites/site.ts";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { DataTable } from "../../../ui/table/DataTable.tsx";
import { entryColumns } from "./entry-columns.tsx";
import { usePrograms } from "../use-programs.ts";
import { catalogueRows, sortedRows } from "./rows.ts";
import type { Answer } from "../../../ui/client/api.ts";
import { count, when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** What a catalogue answered. */
export type CatalogueAnswer = Answer<"GET /sites/:site/catalogue">;

/** The entries of a catalogue beside what is joined already, to be compared and taken over. */
export function Entries(props: { site: Site; network: string; answer: CatalogueAnswer }) {
  const { site, network, answer } = props;
  const [sort, setSort] = useAddressState("sort");
  const [besides, setBesides] = useAddressState("besides");
  const programs = usePrograms(site).data ?? [];
  const rows = sortedRows(catalogueRows(answer.items, programs, besides !== ""), sort);
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm text-quiet">
        <p>
          {answer.items.length === 0 ? say.noEntryOfTheCatalogueHasThese : say.entries(count(answer.total))}
          {answer.total > answer.items.length ? say.theFirstAreShown(answer.items.length) : ""}
          {answer.refused.length > 0
            ? say.couldNotBeReadTheFirstEntry(
                answer.refused.length,
                answer.refused[0]!.line,
                answer.refused[0]!.message,
              )
            : ""}
          {answer.pulledAt ? say.asGaveIt(network, when(answer.pulledAt)) : ""}.
        </p>
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={besides !== ""}
            onChange={(event) => setBesides(event.target.checked ? "1" : "")}
          />
          {say.besideTheProgramsYouHaveJoined}
        </label>
      </div>
      <DataTable
        label={say.entriesOfTheCatalogue}
        rows={rows}
        columns={entryColumns(site, network)}
        keyOf={({ key }) => key}
        sort={sort}
        setSort={setSort}
        rowClass={({ entry }) => `align-top ${entry === undefined ? "bg-wash" : ""}`}
      />
    </>
  );
}
