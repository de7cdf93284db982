import { useMutation, useQuery } from "@tanstack/react-query";
import type { Network, Program, ProgramFigures, ProgramInput } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf, queries, type ListOf } from "../../ui/client/api.ts";
import { notify } from "../../ui/notices/notices.ts";

/** All programs of the site with their figures. */
export function usePrograms(site: Site) {
  return useQuery({
    queryKey: ["programs", site.id],
    queryFn: async () => (await api<ListOf<ProgramFigures>>("GET", `/sites/${site.id}/programs`)).items,
  });
}

/** The networks that programs belong to. */
export function useNetworks(site: Site) {
  return useQuery({
    queryKey: ["networks", site.id],
    queryFn: async () => (await api<ListOf<Network>>("GET", `/sites/${site.id}/networks`)).items,
  });
}

/** Lets every list of programs be asked for anew. */
export function refreshPrograms(): Promise<void> {
  return queries.invalidateQueries({ queryKey: ["programs"] });
}

/** Saves a program, new or over the version it was read at. */
export function useSaveProgram(site: Site, program: Program | undefined) {
  return useMutation({
    mutationFn: (input: Partial<ProgramInput>) =>
      program
        ? api<Program>("PATCH", `/sites/${site.id}/programs/${program.id}`, {
            ...input,
            version: program.version,
          })
        : api<Program>("POST", `/sites/${site.id}/programs`, input),
    onSuccess: (saved) => {
      notify(`Saved ${saved.name}`);
      return refreshPrograms();
    },
  });
}

/** Changes a few fields of a program at once, says so in `said`, and offers to put them back. */
export function useProgramChange(site: Site, said: (saved: Program) => string) {
  const write = (id: string, change: Partial<ProgramInput>, version: number): Promise<Program> =>
    api("PATCH", `/sites/${site.id}/programs/${id}`, { ...change, version });
  const failed = (error: unknown): void => notify(messageOf(error), { tone: "failed" });
  // Catalogues and earnings tell of programs, too.
  const refresh = (): Promise<unknown> =>
    Promise.all([
      refreshPrograms(),
      queries.invalidateQueries({ queryKey: ["catalogue"] }),
      queries.invalidateQueries({ queryKey: ["earnings"] }),
    ]);
  return useMutation({
    mutationFn: ({ program, change }: { program: Program; change: Partial<ProgramInput> }) =>
      write(program.id, change, program.version),
    onSuccess: (saved, { program, change }) => {
      const before = Object.fromEntries(Object.keys(change).map((name) => [name, program[name as keyof Program]])); // prettier-ignore
      notify(said(saved), { undo: () => void write(saved.id, before, saved.version).then(refresh, failed) });
      return refresh();
    },
    onError: failed,
  });
}

/** Takes a program away, with its undo. */
export function useDeleteProgram(site: Site) {
  return useMutation({
    mutationFn: (program: Program) => api("DELETE", `/sites/${site.id}/programs/${program.id}`),
    onSuccess: (_gone, program) => {
      const undo = (): void =>
        void api("POST", `/sites/${site.id}/programs/${program.id}/restore`).then(
          refreshPrograms,
          (error: unknown) => notify(messageOf(error), { tone: "failed" }),
        );
      notify(`Took ${program.name} away`, { undo });
      return refreshPrograms();
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}
