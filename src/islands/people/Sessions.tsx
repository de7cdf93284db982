import { useMutation, useQuery } from "@tanstack/react-query";
import type { Session } from "../../core/people/person.ts";
import { SESSION_DAYS, SESSION_IDLE_DAYS } from "../../core/people/choices.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { when } from "../../ui/format/format.ts";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { browserWords } from "./browser-words.ts";

/** The sessions of whoever is signed in: each can be ended, or all but this one. */
export function Sessions() {
  const sessions = useQuery(asking("GET /me/sessions"));
  const options = {
    onSuccess: () => refresh("GET /me/sessions"),
    onError: (error: unknown) => notify(messageOf(error), { tone: "failed" as const }),
  };
  const end = useMutation({
    mutationFn: (session: string) => api("DELETE /me/sessions/:session", { session }),
    ...options,
  });
  const endOthers = useMutation({ mutationFn: () => api("POST /me/sessions/end-others"), ...options });
  const items = sessions.data?.items ?? [];
  const columns: Column<Session>[] = [
    {
      key: "agent",
      word: "Browser",
      head: true,
      cell: ({ agent, isThis }) => (
        <span title={agent}>
          {browserWords(agent)}
          {isThis ? <span className="text-good"> this one</span> : null}
        </span>
      ),
    },
    { key: "place", word: "From", cellClass: "font-mono text-sm", cell: ({ place }) => place || "unknown" },
    { key: "lastSeenAt", word: "Last used", cell: ({ lastSeenAt }) => when(lastSeenAt) },
    {
      key: "createdAt",
      word: "Signed in",
      className: "max-sm:hidden",
      cell: ({ createdAt }) => when(createdAt),
    },
    {
      key: "action",
      word: <span className="sr-only">What can be done</span>,
      className: "text-right",
      cell: ({ id, isThis, agent }) =>
        isThis ? null : (
          <button className="action action-plain" disabled={end.isPending} onClick={() => end.mutate(id)}>
            End<span className="sr-only"> the session in {browserWords(agent)}</span>
          </button>
        ),
    },
  ];
  return (
    <>
      <p className="mb-2 text-sm text-quiet">
        A session ends after {SESSION_IDLE_DAYS} days without being used, and after {SESSION_DAYS} in any
        case.
      </p>
      {sessions.isError ? <p className="text-bad">{messageOf(sessions.error)}</p> : null}
      <DataTable label="Sessions" rows={items} columns={columns} keyOf={({ id }) => id} />
      {items.length > 1 ? (
        <button className="action mt-3" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
          End all others
        </button>
      ) : null}
    </>
  );
}
