import { ownPlace } from "../../core/address/classify.ts";
import { withPictureForms } from "../../core/files/picture-markup.ts";
import { shownPicture, type ShownPicture } from "../../core/files/picture.ts";
import { pictureAddresses } from "../../core/links/pictures.ts";
import { picturesAtPaths } from "../../store/files/forms.ts";
import type { WithDeliveryPort, WithStore } from "../ground/parts.ts";
import type { OpenSite } from "../sites/open-site.ts";
import { deliveredHtml } from "./pages.ts";

/** The body fragment as readers get it, pictures in their sizes; the draft's on request, or when nothing is published. */
export async function deliveredFragment(
  desk: WithStore & WithDeliveryPort,
  site: OpenSite,
  id: string,
  draft: boolean,
): Promise<string> {
  const html = await deliveredHtml(desk, site, id, draft);
  const pictures = await picturesIn(desk, site, html);
  return withPictureForms(html, (src) => pictures.get(ownPlace(src, site.hostNames)?.key ?? ""));
}

// What readers are shown of the pictures of ours in a text, by their paths.
async function picturesIn(
  desk: WithStore,
  site: OpenSite,
  html: string,
): Promise<ReadonlyMap<string, ShownPicture>> {
  const paths = pictureAddresses(html).flatMap((src) => ownPlace(src, site.hostNames)?.key ?? []);
  const rows = paths.length === 0 ? [] : await picturesAtPaths(desk.store, { site: site.id, paths });
  return new Map(
    rows.flatMap((row) => {
      const shown = shownPicture(row);
      return shown ? [[row.path, shown] as const] : [];
    }),
  );
}
