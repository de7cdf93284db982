import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Person, PersonChange } from "../../core/people/member.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking } from "../../ui/client/queries.ts";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { HandedLink } from "./HandedLink.tsx";
import { SecondFactorRule } from "./SecondFactorRule.tsx";
import { RoleSelect } from "./RoleSelect.tsx";
import { seenColumn } from "./seen-column.ts";
import { usePeopleChange } from "./use-people.ts";

interface Handed {
  name: string;
  path: string;
  expiresAt: string;
}

/** All people of the installation: what they may do on every site, and whether they may come in at all. */
export function Everybody({ site }: { site: Site }) {
  const people = useQuery(asking("GET /people"));
  const sites = useQuery(asking("GET /sites"));
  const [handed, setHanded] = useState<Handed>();
  const change = usePeopleChange(({ id, ...body }: PersonChange & { id: string }) =>
    api("PATCH /people/:id", { id, body }),
  );
  const reset = usePeopleChange(async ({ id, name }: Person) => {
    setHanded({ name, ...(await api("POST /people/:id/reset-link", { id })) });
  });
  const endFactor = usePeopleChange((id: string) => api("DELETE /people/:id/second-factor", { id }));
  const setActive = async ({ id, name }: Person, isActive: boolean): Promise<void> => {
    await change.mutateAsync({ id, isActive });
    notify(
      isActive ? `${name} can sign in again.` : `${name} is signed out everywhere and can no longer sign in.`,
      {
        undo: () => change.mutate({ id, isActive: !isActive }),
      },
    );
  };
  const nameOf = (id: string): string => sites.data?.items.find((one) => one.id === id)?.name ?? site.name;
  const columns: Column<Person>[] = [
    {
      key: "name",
      word: "Name",
      head: true,
      cell: ({ name, mail, state }) => (
        <span className={state === "out" ? "text-quiet line-through" : ""}>
          <span className="font-medium">{name}</span> <span className="text-sm text-quiet">{mail}</span>
        </span>
      ),
    },
    {
      key: "role",
      word: "On every site",
      cell: ({ id, name, role }) => (
        <RoleSelect
          label={`What ${name} may do on every site`}
          none="nothing"
          value={role}
          disabled={change.isPending}
          onChange={(next) => change.mutate({ id, role: next })}
        />
      ),
    },
    {
      key: "sites",
      word: "On single sites",
      cellClass: "text-sm",
      className: "max-sm:hidden",
      cell: (person) => person.roles.map((one) => `${one.role} of ${nameOf(one.site)}`).join(", "),
    },
    seenColumn("max-md:hidden"),
    {
      key: "action",
      word: <span className="sr-only">What can be done</span>,
      className: "text-right",
      cell: (person) => (
        <span className="inline-flex flex-wrap justify-end gap-1">
          {person.state === "out" ? null : (
            <button
              className="action action-plain"
              disabled={reset.isPending}
              onClick={() => reset.mutate(person)}
            >
              {person.state === "invited" ? "New link" : "New password"}
              <span className="sr-only"> for {person.name}</span>
            </button>
          )}
          {person.hasSecondFactor ? (
            <button
              className="action action-plain"
              disabled={endFactor.isPending}
              onClick={() => endFactor.mutate(person.id)}
            >
              End second factor<span className="sr-only"> of {person.name}</span>
            </button>
          ) : null}
          <button
            className={`action action-plain ${person.state === "out" ? "" : "text-bad"}`}
            disabled={change.isPending}
            onClick={() => void Promise.allSettled([setActive(person, person.state === "out")])}
          >
            {person.state === "out" ? "Reactivate" : "Deactivate"}
            <span className="sr-only"> {person.name}</span>
          </button>
        </span>
      ),
    },
  ];
  if (people.isError) return <p className="text-bad">{messageOf(people.error)}</p>;
  return (
    <>
      {handed ? (
        <HandedLink
          words={`With this link ${handed.name} chooses a password; hand it to them.`}
          path={handed.path}
          expiresAt={handed.expiresAt}
        />
      ) : null}
      <SecondFactorRule />
      <DataTable label="Everybody" rows={people.data?.items ?? []} columns={columns} keyOf={({ id }) => id} />
    </>
  );
}
