import type { LedgerGroup } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { TREATMENTS } from "../../core/rules/treatment.ts";
import { TREATMENT_COLOR, TREATMENT_WORD } from "../../ui/links/link-words.ts";
import { setAddressState } from "../../ui/client/url-state.ts";
import { useLinkGroups, type LedgerAsked } from "./use-ledger.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { messageOf } from "../../ui/client/api.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** The ledger by host or by page: how many links, and how the outside ones are treated. */
export function GroupTable({ site, asked, by }: { site: Site; asked: LedgerAsked; by: "host" | "page" }) {
  const groups = useLinkGroups(site, asked, by);
  if (groups.isError) return <p className="text-bad">{messageOf(groups.error)}</p>;
  const items = groups.data?.pages.flatMap((page) => page.items) ?? [];
  if (groups.isSuccess && items.length === 0)
    return <p className="py-10 text-center text-quiet">{say.nothingIsLeftByTheseWordsAnd}</p>;
  return (
    <>
      <TreatmentTable by={by} groups={items} />
      {groups.hasNextPage ? (
        <button className="action mt-2" onClick={() => void groups.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </>
  );
}

/** Groups of links as rows, each with a strip of how its outside links are treated. */
export function TreatmentTable({
  by,
  groups,
  quiet = false,
}: {
  by: "host" | "page";
  groups: readonly LedgerGroup[];
  quiet?: boolean;
}) {
  const figure = (key: string, word: string, of: (group: LedgerGroup) => number): Column<LedgerGroup> => ({
    key,
    word,
    number: true,
    cell: (group) => <span className={of(group) === 0 ? "text-quiet" : ""}>{count(of(group))}</span>,
  });
  const columns: Column<LedgerGroup>[] = [
    {
      key: "value",
      word: by === "host" ? say.host : say.page,
      head: true,
      className: "w-[30%] max-w-0",
      cell: (group) =>
        quiet ? (
          <span className="block truncate print:wrap-anywhere print:whitespace-normal">
            <GroupName by={by} group={group} />
          </span>
        ) : (
          <button
            className="block max-w-full truncate text-left hover:underline"
            onClick={() => setAddressState({ by: "", [by]: group.value })}
          >
            <GroupName by={by} group={group} />
          </button>
        ),
    },
    {
      key: "strip",
      word: say.outsideLinksByTreatment,
      className: "w-[24%] print:hidden",
      cell: (group) => <Strip group={group} />,
    },
    figure("links", say.links, ({ links }) => links),
    figure("outside", say.outside, ({ outside }) => outside),
    ...TREATMENTS.map((one) => figure(one, TREATMENT_WORD[one], (group) => group[one])),
    figure("newTab", say.newTab, ({ newTab }) => newTab),
    figure("findings", say.findings, ({ findings }) => findings),
  ];
  return (
    <DataTable
      label={by === "host" ? say.linksByHost : say.linksByPage}
      rows={groups}
      columns={columns}
      keyOf={({ value, title }) => `${value} ${title}`}
      rowClass={() => "hover:bg-sheet"}
    />
  );
}

function GroupName({ by, group }: { by: "host" | "page"; group: LedgerGroup }) {
  // A block has an address for us alone.
  if (group.place === "block" || group.place === "repeated")
    return (
      <>
        {group.title}{" "}
        <span className="text-sm text-quiet">
          {group.place === "block" ? say.sharedBlock : say.onManyPagesElsewhere}
        </span>
      </>
    );
  return (
    <>
      <span className={by === "host" ? "font-mono text-[0.9em] font-semibold" : "font-mono text-[0.9em]"}>
        {group.value || group.title}
      </span>{" "}
      {by === "page" && group.value ? <span className="text-sm text-quiet">{group.title}</span> : null}
    </>
  );
}

function Strip({ group }: { group: LedgerGroup }) {
  if (group.outside === 0) return <span className="text-sm text-quiet">{say.noneLeadOutside}</span>;
  return (
    <span
      className="flex h-2.5 overflow-hidden rounded-sm"
      role="img"
      aria-label={TREATMENTS.map((one) => `${group[one]} ${TREATMENT_WORD[one]}`).join(", ")}
    >
      {TREATMENTS.map((one) => (
        <span
          key={one}
          style={{
            width: `${(group[one] / group.outside) * 100}%`,
            background: `var(${TREATMENT_COLOR[one]})`,
          }}
        />
      ))}
    </span>
  );
}
