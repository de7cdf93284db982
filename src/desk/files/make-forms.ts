import sharp, { type Sharp } from "sharp";
import {
  aroundFocus,
  CARD,
  cropPixels,
  FORM_WIDTHS,
  FORMED_TYPES,
  WHOLE,
  type Crop,
  type Focus,
} from "../../core/files/picture.ts";
import { noteChange } from "../../store/ground/changes.ts";
import { readContent } from "../../store/files/files.ts";
import { putForms, tryPicturesLock, unformedPicture, type MadeForm } from "../../store/files/forms.ts";
import type { WithReport, WithStore } from "../ground/parts.ts";

// One picture at a time on one core: readers and editors have the others.
sharp.concurrency(1);
const QUALITY = {
  avif: { quality: 50, effort: 3 },
  webp: { quality: 76 },
  jpeg: { quality: 80, mozjpeg: true },
};

/**
 * Makes the forms of the picture that has waited longest for them; false when none does. One process at a time does this;
 * a picture that cannot be read is sent as it is from then on.
 */
export async function makeNextForms(desk: WithStore & WithReport): Promise<boolean> {
  return desk.store.transaction(async (transaction) => {
    const [lock] = await tryPicturesLock(desk.store, transaction);
    const picture = lock!.mine ? await unformedPicture(desk.store, [...FORMED_TYPES]) : undefined;
    if (!picture) return false;
    const content = await readContent(desk.store, picture.id);
    const forms = await formsOf(content ?? Buffer.alloc(0), picture).catch((error: unknown) => {
      desk.report(`No sizes could be made of the picture ${picture.path}; it is sent as it is.`, error);
      return [];
    });
    if (await putForms(desk.store, picture, forms, transaction))
      await noteChange(desk.store, transaction, {
        siteId: picture.siteId,
        kind: "file",
        objectId: picture.id,
      });
    return true;
  });
}

/** The forms of a picture: each width in two formats, a card for previews, and the whole where it is cropped. Throws for what is none. */
export async function formsOf(
  content: Buffer,
  { crop, focus }: { crop: Crop | null; focus: Focus | null },
): Promise<MadeForm[]> {
  const turned = sharp(content, { limitInputPixels: 100_000_000 }).autoOrient();
  const { autoOrient, pages, format } = await turned.metadata();
  if ((pages ?? 1) > 1) return []; // it moves
  const shown = cropPixels(crop, autoOrient);
  // What is smaller than the smallest size is sent as it is: nothing of it could be saved.
  if (!crop && shown.width < FORM_WIDTHS[0]) return [];
  const part = (): Sharp => turned.clone().extract(shown);
  const forms: MadeForm[] = [];
  const add = async (name: string, picture: Sharp): Promise<void> => {
    const { data, info } = await picture.toBuffer({ resolveWithObject: true });
    const mediaType = `image/${info.format === "heif" ? "avif" : info.format}`;
    forms.push({ name, mediaType, width: info.width, height: info.height, content: data });
  };
  const widths = [
    ...FORM_WIDTHS.filter((width) => width < shown.width),
    Math.min(shown.width, FORM_WIDTHS.at(-1)!),
  ];
  for (const width of new Set(widths)) {
    await add(`${width}.webp`, part().resize({ width }).webp(QUALITY.webp));
    await add(`${width}.avif`, part().resize({ width }).avif(QUALITY.avif));
  }
  const { left, top, ...size } = aroundFocus(shown, CARD, focus);
  await add(
    CARD.name,
    turned
      .clone()
      .extract({ left: shown.left + left, top: shown.top + top, ...size })
      .resize({ width: CARD.width, height: CARD.height, withoutEnlargement: true })
      .flatten({ background: "#ffffff" })
      .jpeg(QUALITY.jpeg),
  );
  if (crop) await add(WHOLE, part().toFormat(format === "heif" ? "avif" : format));
  return forms;
}
