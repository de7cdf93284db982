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
import * as say from "./words.ts";

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
    notify(isActive ? say.canSignInAgain(name) : say.isSignedOutEverywhereAndCanNo(name), {
      undo: () => change.mutate({ id, isActive: !isActive }),
    });
  };
  const nameOf = (id: string): string => sites.data?.items.find((one) => one.id === id)?.name ?? site.name;
  const columns: Column<Person>[] = [
    {
      key: "name",
      word: say.name,
      head: true,
      cell: ({ name, mail, state }) => (
        <span className={state === "out" ? "text-quiet line-through" : ""}>
          <span className="font-medium">{name}</span> <span className="text-sm text-quiet">{mail}</span>
        </span>
      ),
    },
    {
      key: "role",
      word: say.onEverySite,
      cell: ({ id, name, role }) => (
        <RoleSelect
          label={say.whatMayDoOnEverySite(name)}
          none={say.nothing}
          value={role}
          disabled={change.isPending}
          onChange={(next) => change.mutate({ id, role: next })}
        />
      ),
    },
    {
      key: "sites",
      word: say.onSingleSites,
      cellClass: "text-sm",
      className: "max-sm:hidden",
      cell: (person) => person.roles.map((one) => say.ofWord(one.role, nameOf(one.site))).join(", "),
    },
    seenColumn("max-md:hidden"),
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: (person) => (
        <span className="inline-flex flex-wrap justify-end gap-1">
          {person.state === "out" ? null : (
            <button
              className="action action-plain"
              disabled={reset.isPending}
              onClick={() => reset.mutate(person)}
            >
              {person.state === "invited" ? say.newLink : say.newPassword}
              <span className="sr-only"> {say.forWord(person.name)}</span>
            </button>
          )}
          {person.hasSecondFactor ? (
            <button
              className="action action-plain"
              disabled={endFactor.isPending}
              onClick={() => endFactor.mutate(person.id)}
            >
              {say.endSecondFactor}
              <span className="sr-only"> {say.ofWord2(person.name)}</span>
            </button>
          ) : null}
          <button
            className={`action action-plain ${person.state === "out" ? "" : "text-bad"}`}
            disabled={change.isPending}
            onClick={() => void Promise.allSettled([setActive(person, person.state === "out")])}
          >
            {person.state === "out" ? say.reactivate : say.deactivate}
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
          words={say.withThisLinkChoosesAPasswordHand(handed.name)}
          path={handed.path}
          expiresAt={handed.expiresAt}
        />
      ) : null}
      <SecondFactorRule />
      <DataTable
        label={say.everybody}
        rows={people.data?.items ?? []}
        columns={columns}
        keyOf={({ id }) => id}
      />
    </>
  );
}
