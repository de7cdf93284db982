import type { LedgerGroup } from "../../core/ledger/ledger.ts";
import type { Site } from "../../core/sites/site.ts";
import { TREATMENTS } from "../../core/rules/treatment.ts";
import { TREATMENT_COLOR, TREATMENT_WORD } from "../../ui/links/link-words.ts";
import { setAddressState } from "../../ui/client/url-state.ts";
import { useLinkGroups, type LedgerAsked } from "./use-ledger.ts";
import { messageOf } from "../../ui/client/api.ts";

/** The ledger by host or by page: how many links, and how the outside ones are treated. */
export function GroupTable({ site, asked, by }: { site: Site; asked: LedgerAsked; by: "host" | "page" }) {
  const groups = useLinkGroups(site, asked, by);
  if (groups.isError) return <p className="text-bad">{messageOf(groups.error)}</p>;
  const items = groups.data?.pages.flatMap((page) => page.items) ?? [];
  if (groups.isSuccess && items.length === 0)
    return <p className="py-10 text-center text-quiet">Nothing is left by these words and filters.</p>;
  return (
    <>
      <TreatmentTable by={by} groups={items} />
      {groups.hasNextPage ? (
        <button className="action mt-2" onClick={() => void groups.fetchNextPage()}>
          Show more
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
  return (
    <table className="w-full border-collapse text-left">
      <thead className="text-sm text-quiet">
        <tr className="border-b border-line">
          <th scope="col" className="w-[30%] py-1.5 pr-3 font-medium">
            {by === "host" ? "Host" : "Page"}
          </th>
          <th scope="col" className="w-[24%] py-1.5 pr-3 font-medium print:hidden">
            Outside links by treatment
          </th>
          {["Links", "Outside", ...TREATMENTS.map((one) => TREATMENT_WORD[one]), "New tab", "Findings"].map(
            (word) => (
              <th key={word} scope="col" className="py-1.5 pr-3 text-right font-medium">
                {word}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>
        {groups.map((group) => (
          <tr key={`${group.value} ${group.title}`} className="border-b border-line/60 hover:bg-sheet">
            <th scope="row" className="max-w-0 py-1 pr-3 font-normal">
              {quiet ? (
                <span className="block truncate print:break-all print:whitespace-normal">
                  <GroupName by={by} group={group} />
                </span>
              ) : (
                <button
                  className="block max-w-full truncate text-left hover:underline"
                  onClick={() => setAddressState({ by: "", [by]: group.value })}
                >
                  <GroupName by={by} group={group} />
                </button>
              )}
            </th>
            <td className="py-1 pr-3 print:hidden">
              <Strip group={group} />
            </td>
            {[
              group.links,
              group.outside,
              ...TREATMENTS.map((one) => group[one]),
              group.newTab,
              group.findings,
            ].map((count, index) => (
              <td
                key={index}
                className={`py-1 pr-3 text-right tabular-nums ${count === 0 ? "text-quiet" : ""}`}
              >
                {count.toLocaleString("en-GB")}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function GroupName({ by, group }: { by: "host" | "page"; group: LedgerGroup }) {
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
  if (group.outside === 0) return <span className="text-sm text-quiet">none lead outside</span>;
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
