import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Route, WrittenRoute } from "../../core/routes/route.ts";
import type { Site } from "../../core/sites/site.ts";
import { notify } from "../../ui/notices/notices.ts";
import { refreshRoutes } from "../routes/use-routes.ts";
import { refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

interface MissAnswer {
  id: string;
  destination: string;
}

/** Asks anew for misses. */
export function refreshMisses(): Promise<void> {
  return refresh("GET /sites/:site/misses", "GET /sites/:site/misses/summary");
}

/** Answers misses with redirects; the notice takes all of them back. Refusals stay at their rows. */
export function useAnswerMisses(site: Site, onDone: () => void) {
  const [faults, setFaults] = useState<Readonly<Record<string, string>>>({});
  const answer = useMutation({
    mutationFn: (answers: MissAnswer[]) =>
      api("POST /sites/:site/misses/answer", { site: site.id, body: { answers } }),
    onSuccess: ({ routes, refused }) => {
      setFaults(Object.fromEntries(refused.map(({ id, message }) => [id, message])));
      refreshRoutes();
      if (routes.length === 0) return;
      onDone();
      const [first] = routes;
      notify(
        routes.length === 1
          ? say.nowLeadsTo(first!.address, first!.destination ?? "")
          : say.addressesAreAnsweredNow(routes.length),
        { undo: () => void takeBack(site, routes) },
      );
    },
    onError: (error, answers) =>
      setFaults(Object.fromEntries(answers.map(({ id }) => [id, messageOf(error)]))),
  });
  return { faults, isPending: answer.isPending, run: (answers: MissAnswer[]) => answer.mutate(answers) };
}

/** Makes the route of a proposal; the notice takes it back. */
export function useTakeProposal(site: Site) {
  return useMutation({
    mutationFn: (input: WrittenRoute) => api("POST /sites/:site/routes", { site: site.id, body: input }),
    onSuccess: (route) => {
      refreshRoutes();
      notify(say.isAnsweredNow(route.address), { undo: () => void takeBack(site, [route]) });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}

async function takeBack(site: Site, routes: readonly Route[]): Promise<void> {
  try {
    for (const { id } of routes) await api("DELETE /sites/:site/routes/:id", { site: site.id, id });
  } catch (error) {
    notify(messageOf(error), { tone: "failed" });
  }
  refreshRoutes();
}

/** Takes misses out of the list, or back into it. */
export function useSetAside(site: Site, onDone: () => void) {
  return useMutation({
    mutationFn: (body: { ids: string[]; ignore: boolean }) =>
      api("POST /sites/:site/misses/ignore", { site: site.id, body }),
    onSuccess: (_, { ids, ignore }) => {
      onDone();
      void refreshMisses();
      const back = (): void =>
        void api("POST /sites/:site/misses/ignore", { site: site.id, body: { ids, ignore: !ignore } }).then(
          refreshMisses,
          (error: unknown) => notify(messageOf(error), { tone: "failed" }),
        );
      const what = ids.length === 1 ? say.oneAddressIs : say.addressesAre(ids.length);
      notify(`${what} ${ignore ? say.ignoredFromNowOn : say.noLongerIgnored}`, { undo: back });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
}
