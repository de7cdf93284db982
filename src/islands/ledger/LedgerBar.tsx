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
import * as say from "./words.ts";

/** How the ledger is looked at, and the words it is searched by; all of it stands in the screen's address. */
export function LedgerBar({ total }: { total: number | undefined }) {
  const [by] = useAddressState("by");
  return (
    <FilterBar
      view={
        <>
          <ViewChoice
            name="edition"
            label={say.whichFormOfThePages}
            usual="written"
            options={[
              ["written", say.asWritten],
              ["readers", say.asReadersGetIt],
            ]}
          />
          <ViewChoice
            name="by"
            label={say.whatIsListed}
            usual="links"
            options={[
              ["links", say.links],
              ["host", say.byHost],
              ["page", say.byPage],
            ]}
          />
        </>
      }
      search={{ label: say.searchLinksByWordsAddressOrPage, placeholder: say.searchLinks }}
      narrows={Object.keys(NOTHING_ASKED)}
      found={
        total === undefined
          ? undefined
          : say.foundOf(count(total), by ? `${by}s` : total === 1 ? say.link : say.links3)
      }
      choices={[
        <FilterSelect key="health" name="health" label={say.health} every={say.anyHealth} options={HEALTH} />,
        <FilterSelect
          key="short"
          name="short"
          label={say.shortLink}
          every={say.shortOrNot}
          options={SHORT}
        />,
        <FilterSelect
          key="byHand"
          name="byHand"
          label={say.byHand}
          every={say.byHandOrRule}
          options={BY_HAND}
        />,
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
  ["bad", say.answersBadly],
  ["fine", say.answersWell],
  ["unknown", say.notLookedAt],
] as const;
const SHORT = [
  ["1", say.rawThoughAShortLinkExists],
  ["0", say.rawWithoutAShortLink],
] as const;
const BY_HAND = [
  ["1", say.somethingSetByHand],
  ["0", say.leftToTheRules],
] as const;
