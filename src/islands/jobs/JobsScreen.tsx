import { useMutation, useQuery } from "@tanstack/react-query";
import type { JobSummary } from "../../contract/jobs.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { jobWords, screenOf, stateWords } from "./job-words.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** A person's long work of the last day: it goes on while they look elsewhere, and after the workspace was started anew. */
export function JobsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <h1 className="mb-1 text-lg font-semibold">{say.backgroundTasks}</h1>
      <p className="mb-3 text-sm text-quiet">{say.whatYouBeganWithinADayIt}</p>
      <JobList site={site} />
    </Screen>
  );
}

const TONES: Readonly<Record<JobSummary["state"], string>> = {
  running: "text-accent",
  done: "text-good",
  failed: "text-bad",
  stopped: "text-quiet",
};

function JobList({ site }: { site: Site }) {
  const jobs = useQuery({
    ...asking("GET /sites/:site/jobs", { site: site.id }),
    refetchInterval: ({ state }) =>
      state.data?.items.some(({ state: of }) => of === "running") ? 1_000 : 10_000,
  });
  const change = useMutation({
    mutationFn: async ({ id, state }: JobSummary) => {
      if (state === "running") await api("DELETE /jobs/:job", { job: id });
      else await api("POST /jobs/:job/retry", { job: id });
    },
    onSuccess: () => refresh("GET /sites/:site/jobs"),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const columns: Column<JobSummary>[] = [
    {
      key: "name",
      word: say.work,
      head: true,
      cell: ({ name }) => (
        <a className="hover:text-accent hover:underline" href={`/${site.key}/${screenOf(name)}`}>
          {jobWords(name)}
        </a>
      ),
    },
    { key: "createdAt", word: say.begun, cell: ({ createdAt }) => when(createdAt) },
    {
      key: "state",
      word: say.progress,
      cell: (job) => <span className={TONES[job.state]}>{stateWords(job)}</span>,
    },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: (job) =>
        job.state === "done" ? null : (
          <button
            className="action action-plain"
            disabled={change.isPending}
            onClick={() => change.mutate(job)}
          >
            {job.state === "running" ? say.stop : say.startAgain}
            <span className="sr-only"> ({jobWords(job.name)})</span>
          </button>
        ),
    },
  ];
  if (jobs.isError) return <p className="text-bad">{messageOf(jobs.error)}</p>;
  if (jobs.data?.items.length === 0)
    return (
      <p className="rounded border border-dashed border-line py-20 text-center text-quiet">
        {say.nothingWithinADayImportsChangesOf}
      </p>
    );
  return (
    <DataTable
      label={say.backgroundTasks}
      rows={jobs.data?.items ?? []}
      columns={columns}
      keyOf={({ id }) => id}
    />
  );
}
