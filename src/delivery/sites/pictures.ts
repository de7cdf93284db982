import { ownPlace } from "../../core/address/classify.ts";
import {
  CARD,
  formsBase,
  PICTURES_PREFIX,
  shownPicture,
  type ShownPicture,
} from "../../core/files/picture.ts";
import type { DeliveredFile } from "../../store/sites/delivery-view.ts";
import type { AskedForm } from "./site-files.ts";
import { fileAt, fileWithId, type SiteIndex } from "./site-index.ts";

/** The file, what its forms were made of, and the form's name. */
const ADDRESS = /^\/~pictures\/([1-9]\d{0,17})-([0-9a-f]{12})-(\d{1,9})\/(?<name>[\w.]{1,20})$/;

/** A form of a picture by the path key of its address; undefined for all other paths. */
export function formAt(site: SiteIndex, key: string): { file: DeliveredFile; form: AskedForm } | undefined {
  if (!key.startsWith(PICTURES_PREFIX)) return undefined;
  const [, id = "", digest, formed, name = ""] = ADDRESS.exec(key) ?? [];
  const file = fileWithId(site, id);
  if (!file || !file.forms.some((form) => form.name === name)) return undefined;
  // Who has an older page asks for an older form: the newer one is the next best, and not to be kept.
  const isCurrent = file.digest.startsWith(digest!) && file.formed === Number(formed);
  return { file, form: { name, isCurrent } };
}

/** What a page shows of a picture of ours; undefined for what is none, or has no size. */
export function pictureAt(site: SiteIndex, src: string): ShownPicture | undefined {
  const file = fileOf(site, src);
  return file && shownPicture(file);
}

/** The path of what is shown of a picture where its page is passed on; undefined where it has no such form. */
export function cardOf(site: SiteIndex, src: string): string | undefined {
  const file = fileOf(site, src);
  return file?.forms.some(({ name }) => name === CARD.name) ? formsBase(file) + CARD.name : undefined;
}

function fileOf(site: SiteIndex, src: string): DeliveredFile | undefined {
  const place = ownPlace(src, site.links.hosts);
  return place && fileAt(site, place.key);
}
