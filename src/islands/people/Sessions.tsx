import { useMutation, useQuery } from "@tanstack/react-query";
import type { Session } from "../../core/people/person.ts";
import { SESSION_DAYS, SESSION_IDLE_DAYS } from "../../core/people/choices.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { when } from "../../ui/format/format.ts";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { browserWords } from "./browser-words.ts";
import * as say from "./words.ts";

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
      word: say.browser,
      head: true,
      cell: ({ agent, isThis }) => (
        <span title={agent}>
          {browserWords(agent)}
          {isThis ? <span className="text-good"> {say.thisOne}</span> : null}
        </span>
      ),
    },
    { key: "place", word: say.from, cellClass: "font-mono text-sm", cell: ({ place }) => place || "unknown" },
    { key: "lastSeenAt", word: say.lastUsed, cell: ({ lastSeenAt }) => when(lastSeenAt) },
    {
      key: "createdAt",
      word: say.signedIn,
      className: "max-sm:hidden",
      cell: ({ createdAt }) => when(createdAt),
    },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: ({ id, isThis, agent }) =>
        isThis ? null : (
          <button className="action action-plain" disabled={end.isPending} onClick={() => end.mutate(id)}>
            {say.end}
            <span className="sr-only"> {say.theSessionIn(browserWords(agent))}</span>
          </button>
        ),
    },
  ];
  return (
    <>
      <p className="mb-2 text-sm text-quiet">
        {say.aSessionEndsAfterDaysWithoutBeing(SESSION_IDLE_DAYS, SESSION_DAYS)}
      </p>
      {sessions.isError ? <p className="text-bad">{messageOf(sessions.error)}</p> : null}
      <DataTable label={say.sessions} rows={items} columns={columns} keyOf={({ id }) => id} />
      {items.length > 1 ? (
        <button className="action mt-3" disabled={endOthers.isPending} onClick={() => endOthers.mutate()}>
          {say.endAllOthers}
        </button>
      ) : null}
    </>
  );
}
