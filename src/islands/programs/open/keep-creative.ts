import type { Creative } from "../../../core/creatives/creative.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { undoChange } from "../../ledger/many/use-change.ts";
import * as say from "../words.ts";

/** Keeps a snippet of a program, new or over what it was, and says so; what it was can be put back. */
export async function keepCreative(
  site: Site,
  program: string,
  creative: Creative | undefined,
  { name, html, published }: { name: string; html: string; published: boolean },
  onUndone: () => void,
): Promise<void> {
  if (!creative) {
    const body = { name, html };
    const kept = await api("POST /sites/:site/programs/:id/creatives", { site: site.id, id: program, body });
    return notify(say.kept(kept.name));
  }
  const at = { site: site.id, id: creative.id };
  const body = { name, html, version: creative.version, published };
  const changed = await api("PUT /sites/:site/creatives/:id", { ...at, body });
  const { places } = changed;
  const undo = async (): Promise<void> => {
    if (places.batch !== null) await undoChange(site, places.batch);
    const before = { name: creative.name, html: creative.html, version: changed.creative.version };
    await api("PUT /sites/:site/creatives/:id", { ...at, body: before });
    onUndone();
  };
  const follow = places.links === 1 ? say.placeFollows : say.placesFollow2;
  notify(say.changed(name, places.links > 0 ? `; ${places.links} ${follow}` : ""), {
    undo: () => void undo().catch((error: unknown) => notify(messageOf(error), { tone: "failed" })),
  });
}
