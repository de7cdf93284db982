import { useMutation, useQuery } from "@tanstack/react-query";
import type { Program, ProgramInput } from "../../core/programs/program.ts";
import type { FrameSite } from "../../ui/frame/frame-site.ts";
import { notify } from "../../ui/notices/notices.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** All programs of the site with their figures. */
export function usePrograms(site: FrameSite) {
  return useQuery({
    ...asking("GET /sites/:site/programs", { site: site.id }),
    select: ({ items }) => items,
  });
}

/** The networks that programs belong to. */
export function useNetworks(site: FrameSite) {
  return useQuery({
    ...asking("GET /sites/:site/networks", { site: site.id }),
    select: ({ items }) => items,
  });
}

/** Lets every list of programs be asked for anew. */
export function refreshPrograms(): Promise<void> {
  return refresh("GET /sites/:site/programs");
}

/** Saves a program, new or over the version it was read at. */
export function useSaveProgram(site: FrameSite, program: Program | undefined) {
  return useMutation({
    mutationFn: (input: ProgramInput) =>
      program
        ? api("PATCH /sites/:site/programs/:id", {
            site: site.id,
            id: program.id,
            body: {
              ...input,
              version: program.version,
            },
          })
        : api("POST /sites/:site/programs", { site: site.id, body: input }),
    onSuccess: (saved) => {
      notify(say.saved(saved.name));
      return refreshPrograms();
    },
  });
}

/** Changes a few fields of a program at once, says so in `said`, and offers to put them back. */
export function useProgramChange(site: FrameSite, said: (saved: Program) => string) {
  const write = (id: string, change: Partial<ProgramInput>, version: number): Promise<Program> =>
    api("PATCH /sites/:site/programs/:id", { site: site.id, id, body: { ...change, version } });
  const failed = (error: unknown): void => notify(messageOf(error), { tone: "failed" });
  // Catalogues and earnings tell of programs, too.
  const refreshAll = (): Promise<void> =>
    refresh("GET /sites/:site/programs", "GET /sites/:site/catalogue", "GET /sites/:site/earnings");
  return useMutation({
    mutationFn: ({ program, change }: { program: Program; change: Partial<ProgramInput> }) =>
      write(program.id, change, program.version),
    onSuccess: (saved, { program, change }) => {
      const before = Object.fromEntries(
        Object.keys(change).map((name) => [name, program[name as keyof Program]]),
      );
      notify(said(saved), {
        undo: () => void write(saved.id, before, saved.version).then(refreshAll, failed),
      });
      return refreshAll();
    },
    onError: failed,
  });
}

/** Takes a program away, with its undo. */
export function useDeleteProgram(site: FrameSite) {
  return useMutation({
    mutationFn: (program: Program) =>
      api("DELETE /sites/:site/programs/:id", { site: site.id, id: program.id }),
    onSuccess: (_gone, program) => {
      const undo = (): void =>
        void api("POST /sites/:site/programs/:id/restore", { site: site.id, id: program.id }).then(
          refreshPrograms,
          (error: unknown) => notify(messageOf(error), { tone: "failed" }),
        );
      notify(say.deleted(program.name), { undo });
      return refreshPrograms();
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}
