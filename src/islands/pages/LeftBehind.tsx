import { useMutation } from "@tanstack/react-query";
import { Signpost } from "lucide-react";
import type { WrittenRoute } from "../../core/routes/route.ts";
import type { Site } from "../../core/sites/site.ts";
import { notify } from "../../ui/notices/notices.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

/** A path that readers knew and that nothing answers any more; where its page is now, if it is anywhere. */
export interface LeftPath {
  path: string;
  now: string | null;
}

/** Offers what keeps an abandoned path working: a redirect to where the page is now, or an honest “gone”. */
export function LeftBehind({ site, left, onDone }: { site: Site; left: LeftPath; onDone: () => void }) {
  const make = useMutation({
    mutationFn: (input: WrittenRoute) => api("POST /sites/:site/routes", { site: site.id, body: input }),
    onSuccess: (route) => {
      onDone();
      notify(
        route.destination ? say.leadsTo(route.address, route.destination) : say.isGone410(route.address),
        {
          undo: () =>
            void api("DELETE /sites/:site/routes/:id", { site: site.id, id: route.id }).catch(
              (error: unknown) => notify(messageOf(error), { tone: "failed" }),
            ),
        },
      );
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const address = left.path;
  return (
    <section
      aria-label={say.thePathThatWasLeft}
      className="mt-2 flex flex-wrap items-center gap-2 rounded border border-accent bg-wash p-2.5"
    >
      <Signpost size={16} aria-hidden />
      <p>
        {say.readersWhoAskFor} <span className="font-mono">{address}</span> {say.nowGetNotFound}
      </p>
      {left.now === null ? (
        <a
          className="action action-main py-0.5"
          href={`/${site.key}/routes?open=new-redirect&at=${encodeURIComponent(address)}`}
        >
          {say.redirectThem}
        </a>
      ) : (
        <button
          className="action action-main py-0.5"
          disabled={make.isPending}
          onClick={() => make.mutate({ kind: "redirect", address, destination: left.now })}
        >
          {say.redirectThemTo(left.now)}
        </button>
      )}
      <button
        className="action py-0.5"
        disabled={make.isPending}
        onClick={() => make.mutate({ kind: "gone", address })}
      >
        {say.sayThatItIsGone}
      </button>
      <button className="action action-plain py-0.5" onClick={onDone}>
        {say.leaveItSo}
      </button>
    </section>
  );
}
