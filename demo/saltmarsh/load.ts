import type { Actor } from "../../src/core/people/actor.ts";
import type { StartingDesk } from "../../src/desk/desk.ts";
import { changeFront } from "../../src/desk/origin/front.ts";
import { originRow, nameOrigin } from "../../src/desk/origin/origins.ts";
import { lookAtOrigin } from "../../src/desk/origin/reading/look.ts";
import { readRound } from "../../src/desk/origin/reading/read-round.ts";
import { keepNetwork } from "../../src/desk/programs/networks.ts";
import { createProgram } from "../../src/desk/programs/programs.ts";
import { replaceRules } from "../../src/desk/rules/rules.ts";
import { replaceSwaps } from "../../src/desk/rules/swaps/swaps.ts";
import { swapsInputSchema } from "../../src/core/rules/swaps/swap.ts";
import { openSite } from "../../src/desk/sites/open-site.ts";
import { createSite } from "../../src/desk/sites/sites.ts";
import { catchUpLedger } from "../../src/desk/ledger/follow-ledger.ts";
import { lineUp } from "../../src/store/origin/readings.ts";
import { UNWATCHED } from "../../src/threads/progress.ts";
import { demoNetworks, demoPrograms } from "../programs.ts";
import { DEMO_RULES } from "../rules.ts";
import { NOTES_HOST, notesAnswerAt, notesAnswers, type NotesAnswer } from "./pages.ts";

export const SALTMARSH_KEY = "saltmarsh-notes";

const { swaps: SALTMARSH_SWAPS } = swapsInputSchema.parse({
  version: 0,
  swaps: [
    {
      what: "address",
      find: "http://tides.example/table?place=marsh",
      replace: "https://tide-tables.example/saltmarsh",
    },
  ],
});
const OURS = new Set(["Harbour Optics", "Kettle Moor Flasks", "Almanac House Press"]);

/** Makes the second site of the demo, whose pages stand in a system that `sim/` plays, and reads them. */
export async function loadSaltmarsh(
  desk: StartingDesk,
  actor: Actor,
  simPort: number,
  now: number,
): Promise<void> {
  const { id } = await createSite(desk, actor, {
    key: SALTMARSH_KEY,
    name: "Saltmarsh Notes",
    hosts: [
      { name: NOTES_HOST, role: "primary" },
      { name: "smn.localhost", role: "short" },
    ],
  });
  const site = await openSite(desk, id);
  for (const network of demoNetworks(simPort)) await keepNetwork(desk, actor, site, network);
  for (const program of demoPrograms(simPort, now).filter(({ name }) => OURS.has(name)))
    await createProgram(
      desk,
      actor,
      await openSite(desk, id),
      { ...program, state: "approved", trackingId: "SN-0417" },
      now,
    );
  await replaceRules(desk, actor, await openSite(desk, id), 0, DEMO_RULES.slice(0, 2));

  await replaceSwaps(desk, actor, await openSite(desk, id), { version: 0, swaps: SALTMARSH_SWAPS });

  const answers = notesAnswers(simPort);
  // The system that it stands in need not be running yet.
  const reading: StartingDesk = {
    ...desk,
    outgoing: {
      ...desk.outgoing,
      fetch: async (address) => {
        const url = new URL(address);
        return url.hostname === NOTES_HOST
          ? sent(notesAnswerAt(answers, `${url.pathname}${url.search}`))
          : { ok: false, reason: "is not asked here" };
      },
    },
  };
  const address = `http://${NOTES_HOST}:${simPort}/`;
  await nameOrigin(desk, actor, await openSite(desk, id), { address, settings: { pauseMs: 0 } });
  const named = await openSite(desk, id);
  await lookAtOrigin(reading, named, { address, pauseMs: 0 }, UNWATCHED);
  await lineUp(desk.store, { site: id, parts: [], leaveOut: [], most: 5_000 });
  await readRound(reading, named, await originRow(desk, named), UNWATCHED);
  await catchUpLedger(desk, named, UNWATCHED);
  await changeFront(desk, actor, named, { comes: "front", passes: "shadow", only: [], here: [] });
}

function sent(answer: NotesAnswer) {
  const bytes = "body" in answer ? Buffer.from(answer.body, answer.encoding ?? "utf8") : new Uint8Array();
  const headers: Record<string, string> = {
    ...("type" in answer && { "content-type": answer.type }),
    ...("location" in answer && { location: answer.location }),
  };
  return { ok: true as const, status: answer.status, headers, bytes };
}
