import type { z } from "zod";
import type { Actor } from "../../core/people/actor.ts";
import type { publishedManySchema } from "../../core/pages/page.ts";
import type { WithDeliveryPort, WithReport, WithStore } from "../ground/parts.ts";
import { Problem } from "../ground/problem.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { publishPage } from "./pages.ts";

type Published = z.infer<typeof publishedManySchema>;

/** Publishes pages one after another; one that cannot be published keeps none of the others. */
export async function publishPages(
  desk: WithStore & WithDeliveryPort & WithReport,
  actor: Actor,
  site: OpenSite,
  pages: readonly { id: string; version: number }[],
): Promise<Published> {
  const done: Published = { published: [], refused: [] };
  for (const { id, version } of pages) {
    try {
      const page = await publishPage(desk, actor, site, id, version);
      done.published.push({ id, version: page.version, url: page.url });
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      done.refused.push({ id, message: error.message });
    }
  }
  return done;
}
