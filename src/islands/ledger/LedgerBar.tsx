import type { Site } from "../../core/sites/site.ts";
import { CsvLink } from "../../ui/filter/CsvLink.tsx";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { ReadAnew } from "./ReadAnew.tsx";
import { SavedViews } from "./SavedViews.tsx";
import { LEDGER_COLUMNS } from "./table/columns.tsx";
import { NOTHING_ASKED, type LedgerAsked } from "./use-ledger.ts";
import { hrefOf } from "../../ui/client/api.ts";
import { count } from "../../ui/format/format.ts";

/** How the ledger is looked at, and the words it is searched by; all of it stands in the screen's address. */
export function LedgerBar({ total }: { total: number | undefined }) {
  const [by] = useAddressState("by");
  return (
    <FilterBar
      view={
        <>
          <ViewChoice
            name="edition"
            label="Which form of the pages"
            usual="written"
            options={[
              ["written", "As written"],
              ["readers", "As readers get it"],
            ]}
          />
          <ViewChoice
            name="by"
            label="What is listed"
            usual="links"
            options={[
              ["links", "Links"],
              ["host", "By host"],
              ["page", "By page"],
            ]}
          />
        </>
      }
      search={{ label: "Search links by words, address or page", placeholder: "Search links" }}
      narrows={Object.keys(NOTHING_ASKED)}
      found={
        total === undefined ? undefined : `${count(total)} ${by ? `${by}s` : total === 1 ? "link" : "links"}`
      }
      choices={[
        <FilterSelect key="health" name="health" label="Health" every="any health" options={HEALTH} />,
        <FilterSelect key="short" name="short" label="Short link" every="short or not" options={SHORT} />,
        <FilterSelect key="byHand" name="byHand" label="By hand" every="by hand or rule" options={BY_HAND} />,
      ]}
    />
  );
}

/** Saved views, columns and the CSV of what is listed. */
export function LedgerTools({ site, asked }: { site: Site; asked: LedgerAsked }) {
  const [by] = useAddressState("by");
  return (
    <span className="mb-3 ml-auto flex flex-wrap gap-2">
      <ReadAnew site={site} />
      <SavedViews site={site} />
      {by ? null : <ColumnChoice of={LEDGER_COLUMNS} />}
      <CsvLink href={hrefOf("GET /sites/:site/links/export", { site: site.id, query: asked })} />
    </span>
  );
}

const HEALTH = [
  ["bad", "answers badly"],
  ["fine", "answers well"],
  ["unknown", "not looked at"],
] as const;
const SHORT = [
  ["1", "raw, though a short link exists"],
  ["0", "raw, without a short link"],
] as const;
const BY_HAND = [
  ["1", "something set by hand"],
  ["0", "left to the rules"],
] as const;
