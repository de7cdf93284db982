import { useMemo } from "react";
import type { LedgerLink } from "../../../core/ledger/ledger.ts";
import type { Site } from "../../../core/sites/site.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import { useColumns } from "../../../ui/table/columns.ts";
import type { Selection } from "../../../ui/table/use-selection.ts";
import { WorkTable } from "../../../ui/table/WorkTable.tsx";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { wordsOf, wordsPlace } from "../link-place.ts";
import { LEDGER_COLUMNS, ledgerColumns } from "./columns.tsx";
import * as say from "../words.ts";

const WIDE: Readonly<Record<string, string>> = {
  anchor: "w-[25%]",
  page: "w-[18%]",
  href: "w-[30%]",
  rule: "w-[16%]",
  findings: "w-[14%]",
  rel: "w-[13%]",
  clicks: "text-right",
};
const WIDE_BESIDE: Readonly<Record<string, string>> = {
  anchor: "w-[38%]",
  page: "w-[24%]",
  href: "w-[36%]",
};
const NARROW: Readonly<Record<string, string>> = {
  anchor: "max-w-0",
  page: "max-w-0",
  href: "max-w-0 overflow-hidden",
  rule: "max-w-0",
  findings: "max-w-0",
};
const NOT_BESIDE = [
  "host",
  "rel",
  "target",
  "stored",
  "rule",
  "program",
  "short",
  "health",
  "clicks",
  "findings",
];

/** The ledger as a table; a row opens beside it. Enter opens, g goes to the words, c copies the address. */
export function LedgerTable(props: {
  site: Site;
  links: readonly LedgerLink[];
  openId: string;
  sort: string;
  setSort: (sort: string) => void;
  selection: Selection;
  more: (() => void) | undefined;
}) {
  const { site, openId } = props;
  const columns = useMemo(() => ledgerColumns(site), [site]);
  const [shown] = useColumns(LEDGER_COLUMNS);
  const onKey = (key: string, link: LedgerLink): boolean => {
    if (key === "Enter") setAddressState({ open: link.id });
    else if (key === "g") location.assign(wordsPlace(site, link));
    else if (key === "c") void copyText(link.destination);
    else return false;
    return true;
  };
  return (
    <WorkTable
      name="ledger"
      rows={props.links}
      columns={columns}
      visible={Object.fromEntries(
        Object.keys(LEDGER_COLUMNS.words).map((name) => [
          name,
          shown.includes(name) && !(openId !== "" && NOT_BESIDE.includes(name)),
        ]),
      )}
      head={openId === "" ? WIDE : WIDE_BESIDE}
      cell={NARROW}
      openId={openId}
      sort={props.sort}
      setSort={props.setSort}
      selection={props.selection}
      more={props.more}
      nameOf={(link) => say.inWord2(wordsOf(link), link.title)}
      all={say.links3}
      isDim={({ live, edition }) => !live && edition !== "draft"}
      onKey={onKey}
    />
  );
}
