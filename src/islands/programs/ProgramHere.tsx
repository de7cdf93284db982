import { useMutation } from "@tanstack/react-query";
import type { BuiltProgramLink } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { tracked, untracked } from "../../core/rules/partners.ts";
import { api, messageOf, ApiProblem } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/**
 * Says to which program an address leads and whether it is tracked for us; one key makes it the tracked link, with the
 * label of the page it is for. Nothing where no program is known.
 */
export function ProgramHere(props: {
  site: Pick<Site, "id" | "partners">;
  address: string;
  /** The page that the link stands on, by id. */
  page?: string;
  /** Saves that page, of whose path as it is saved the label is made. */
  save?: () => Promise<boolean>;
  onTracked: (built: BuiltProgramLink) => void;
}) {
  const { site, address, page, save } = props;
  const ours = tracked(site.partners, address);
  const bare = ours ? undefined : untracked(site.partners, address, {});
  const build = useMutation({
    mutationFn: async ({ id, destination }: { id: string; destination: string }) => {
      await save?.();
      const body = { destination, ...(page ? { page } : {}) };
      return api("POST /sites/:site/programs/:id/link", { site: site.id, id, body });
    },
    onSuccess: props.onTracked,
  });
  if (ours)
    return (
      <p className="text-sm text-good">
        {say.trackedForYouAt(ours.program)}
        {ours.subId ? (
          <>
            {say.label} <code>{ours.subId}</code>
          </>
        ) : null}
        .
      </p>
    );
  if (!bare) return null;
  const errors = build.error instanceof ApiProblem ? build.error.errors.map(({ message }) => message) : [];
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <span className="text-warn">
        {bare.foreignId === null
          ? say.leadsToWithoutTracking(bare.program)
          : say.leadsToTrackedFor(bare.program, bare.foreignId)}
      </span>
      {bare.id && bare.destination !== null ? (
        <button
          type="button"
          className="action py-0.5"
          disabled={build.isPending}
          onClick={() => build.mutate({ id: bare.id!, destination: bare.destination! })}
        >
          {say.trackIt}
        </button>
      ) : null}
      {build.isError ? (
        <span role="alert" className="text-bad">
          {errors.join(" ") || messageOf(build.error)}
        </span>
      ) : null}
    </div>
  );
}
