import { setTimeout as rest } from "node:timers/promises";
import type { WithOutgoing } from "../../ground/parts.ts";

/** The same desk, asking outside one document after another, with a pause between them. */
export function politely<Desk extends WithOutgoing>(desk: Desk, pauseMs: number, signal: AbortSignal): Desk {
  let isFirst = true;
  let before: Promise<unknown> = Promise.resolve();
  const { outgoing } = desk;
  const fetch: typeof outgoing.fetch = (address, options) => {
    const pause = isFirst ? 0 : pauseMs;
    isFirst = false;
    const answer = before.then(async () => {
      // Whoever stops it is not kept waiting.
      if (pause > 0) await rest(pause, undefined, { signal }).catch(() => undefined);
      return outgoing.fetch(address, options);
    });
    before = answer;
    return answer;
  };
  return { ...desk, outgoing: { ...outgoing, fetch } };
}
