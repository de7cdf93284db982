import type { Person } from "../../core/people/member.ts";
import { when } from "../../ui/format/format.ts";
import type { Column } from "../../ui/table/DataTable.tsx";
import * as say from "./words.ts";

/** When somebody was last here; `className` says where the column is left out. */
export function seenColumn(className: string): Column<Pick<Person, "state" | "lastSeenAt">> {
  return {
    key: "seen",
    word: say.lastHere,
    cellClass: "text-sm text-quiet",
    className,
    cell: ({ lastSeenAt, state }) =>
      state === "invited" ? "invited" : lastSeenAt ? when(lastSeenAt) : say.notSignedIn,
  };
}
