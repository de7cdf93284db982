import { useQuery } from "@tanstack/react-query";
import type { Member } from "../../core/people/member.ts";
import type { Role } from "../../core/people/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking } from "../../ui/client/queries.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { HistoryLink } from "../../ui/links/HistoryLink.tsx";
import { RoleSelect } from "./RoleSelect.tsx";
import { seenColumn } from "./seen-column.ts";
import { usePeopleChange } from "./use-people.ts";
import * as say from "./words.ts";

/** Who can sign in to a site, with what they may do there. */
export function Members({ site }: { site: Site }) {
  const members = useQuery(asking("GET /sites/:site/people", { site: site.id }));
  const change = usePeopleChange(({ id, role }: { id: string; role: Role }) =>
    api("PUT /sites/:site/people/:id", { site: site.id, id, body: { role } }),
  );
  const remove = usePeopleChange((id: string) =>
    api("DELETE /sites/:site/people/:id", { site: site.id, id }),
  );
  const columns: Column<Member>[] = [
    {
      key: "name",
      word: say.name,
      head: true,
      cell: ({ name, mail }) => (
        <>
          <span className="font-medium">{name}</span> <span className="text-sm text-quiet">{mail}</span>
        </>
      ),
    },
    {
      key: "role",
      word: say.mayDoHere,
      cell: ({ id, name, role, everywhere }) => (
        <span className="flex flex-wrap items-center gap-2">
          {role ? (
            <RoleSelect
              label={say.whatMayDoHere(name)}
              value={role}
              disabled={change.isPending}
              onChange={(next) => next && change.mutate({ id, role: next })}
            />
          ) : null}
          {everywhere ? <span className="text-sm text-quiet">{say.onEverySite2(everywhere)}</span> : null}
        </span>
      ),
    },
    seenColumn("max-sm:hidden"),
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: ({ id, name, role }) =>
        role ? (
          <button
            className="action action-plain text-bad"
            disabled={remove.isPending}
            onClick={() => remove.mutate(id)}
          >
            {say.remove}
            <span className="sr-only"> {say.whatMayDoHere2(name)}</span>
          </button>
        ) : null,
    },
  ];
  if (members.isError) return <p className="text-bad">{messageOf(members.error)}</p>;
  return (
    <>
      <p className="mb-2 text-sm text-quiet">
        {say.aReaderLooksAnEditorWritesLinks} <HistoryLink site={site} kind="member" />
      </p>
      <DataTable
        label={say.whoCanSignInTo(site.name)}
        rows={members.data?.items ?? []}
        columns={columns}
        keyOf={({ id }) => id}
      />
    </>
  );
}
