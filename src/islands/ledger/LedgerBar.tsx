import { Download } from "lucide-react";
import type { Site } from "../../core/sites/site.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { FilterSelect } from "../../ui/fields/FilterSelect.tsx";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { useSearchKey } from "../../ui/keys/use-search-key.ts";
import { ReadAnew } from "./ReadAnew.tsx";
import { SavedViews } from "./SavedViews.tsx";
import { LEDGER_COLUMNS } from "./table/column-names.ts";
import { NOTHING_ASKED, type LedgerAsked } from "./use-ledger.ts";
import { hrefOf } from "../../ui/client/api.ts";

/** How the ledger is looked at, and the words it is searched by; all of it stands in the screen's address. */
export function LedgerBar({ asked, total }: { asked: LedgerAsked; total: number | undefined }) {
  const [q, setQ] = useAddressState("q");
  const [edition, setEdition] = useAddressState("edition");
  const [by, setBy] = useAddressState("by");
  const search = useSearchKey();
  const isNarrowed = Object.keys(asked).some((name) => name !== "edition");
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <Choice
        label="Which form of the pages"
        value={edition || "written"}
        options={[
          { value: "written", word: "As written" },
          { value: "readers", word: "As readers get it" },
        ]}
        onChange={(value) => setEdition(value === "written" ? "" : value)}
      />
      <Choice
        label="What is listed"
        value={by || "links"}
        options={[
          { value: "links", word: "Links" },
          { value: "host", word: "By host" },
          { value: "page", word: "By page" },
        ]}
        onChange={(value) => setBy(value === "links" ? "" : value)}
      />
      <input
        ref={search}
        className="field max-w-60"
        type="search"
        aria-label="Search links by words, address or page"
        aria-keyshortcuts="f"
        placeholder="Search links   ( f )"
        value={q}
        onChange={(event) => setQ(event.target.value)}
      />
      <FilterSelect name="health" label="Health" every="any health" options={HEALTH} />
      <FilterSelect name="short" label="Short link" every="short or not" options={SHORT} />
      <FilterSelect name="byHand" label="By hand" every="by hand or rule" options={BY_HAND} />
      {isNarrowed ? (
        <button
          type="button"
          className="text-sm text-accent underline"
          onClick={() => setAddressState(NOTHING_ASKED)}
        >
          show all
        </button>
      ) : null}
      <span className="text-sm text-quiet" aria-live="polite">
        {total === undefined
          ? ""
          : `${total.toLocaleString("en-GB")} ${by ? `${by}s` : total === 1 ? "link" : "links"}`}
      </span>
    </div>
  );
}

/** Kept views, columns and the CSV of what is listed. */
export function LedgerTools({ site, asked }: { site: Site; asked: LedgerAsked }) {
  const [by] = useAddressState("by");
  return (
    <span className="mb-3 ml-auto flex flex-wrap gap-2">
      <ReadAnew site={site} />
      <SavedViews site={site} />
      {by ? null : <ColumnChoice of={LEDGER_COLUMNS} />}
      <a
        className="action py-1 text-sm"
        href={hrefOf("GET /sites/:site/links/export", { site: site.id, query: asked })}
        download
      >
        <Download size={14} aria-hidden /> CSV
      </a>
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
