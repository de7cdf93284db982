import { z } from "zod";

const part = (name: string) =>
  z
    .number(`${name} is a part of the picture, from 0 to 1.`)
    .min(0, `${name} is not less than 0.`)
    .max(1, `${name} is not more than 1.`);

/** The part of a picture that is shown, in parts of its width and height from the upper left corner. */
export const cropSchema = z
  .strictObject({ left: part("left"), top: part("top"), width: part("width"), height: part("height") })
  .refine(({ left, width }) => width > 0 && left + width <= 1.000_001, {
    path: ["width"],
    message: "What is shown is wider than nothing, and ends within the picture.",
  })
  .refine(({ top, height }) => height > 0 && top + height <= 1.000_001, {
    path: ["height"],
    message: "What is shown is higher than nothing, and ends within the picture.",
  });
export type Crop = z.infer<typeof cropSchema>;

/** The point of a picture that stays in sight where it is cut further, in parts of what is shown. */
export const focusSchema = z.strictObject({ x: part("x"), y: part("y") });
export type Focus = z.infer<typeof focusSchema>;

/** One form of a picture: its name is the last part of its address. */
export interface PictureForm {
  name: string;
  type: string;
  width: number;
  height: number;
}

/** The widths in pixels that pictures are sent in, where they are that wide. */
export const FORM_WIDTHS = [320, 640, 960, 1280, 1920] as const;

/** The size of the picture that is shown where a page is passed on. */
export const CARD = { name: "card.jpg", width: 1200, height: 630 } as const;

/** The form that a cropped picture has at its own address. */
export const WHOLE = "whole";

/** Types of which forms are made: others are sent as they are (drawings scale, moving pictures move). */
export const FORMED_TYPES: ReadonlySet<string> = new Set([
  "image/jpeg",
  "image/png",
  "image/webp",
  "image/avif",
]);

/** A crop in whole pixels of a picture, at least one wide and high. */
export function cropPixels(
  crop: Crop | null,
  { width, height }: { width: number; height: number },
): { left: number; top: number; width: number; height: number } {
  if (!crop) return { left: 0, top: 0, width, height };
  const left = Math.min(width - 1, Math.round(crop.left * width));
  const top = Math.min(height - 1, Math.round(crop.top * height));
  return {
    left,
    top,
    width: Math.max(1, Math.min(width - left, Math.round(crop.width * width))),
    height: Math.max(1, Math.min(height - top, Math.round(crop.height * height))),
  };
}

/**
 * The largest part of a picture that has a size's proportions and its focus as near to the middle as it can be, in whole
 * pixels.
 */
export function aroundFocus(
  picture: { width: number; height: number },
  size: { width: number; height: number },
  focus: Focus | null,
): { left: number; top: number; width: number; height: number } {
  const scale = Math.min(picture.width / size.width, picture.height / size.height);
  const width = Math.max(1, Math.min(picture.width, Math.round(size.width * scale)));
  const height = Math.max(1, Math.min(picture.height, Math.round(size.height * scale)));
  const within = (at: number, room: number): number => Math.min(Math.max(0, Math.round(at)), room);
  const { x, y } = focus ?? { x: 0.5, y: 0.5 };
  return {
    left: within(x * picture.width - width / 2, picture.width - width),
    top: within(y * picture.height - height / 2, picture.height - height),
    width,
    height,
  };
}

/** A picture of ours with its forms, as it is kept. */
export interface KeptPicture {
  id: string;
  digest: string;
  /** Of all of it, in pixels. */
  width: number | null;
  height: number | null;
  /** The shape that its forms were made of; null: there are none. */
  formed: number | null;
  forms: readonly PictureForm[];
}

/** A picture of ours as pages show it. */
export interface ShownPicture {
  /** Of what is shown of it, in pixels. */
  width: number;
  height: number;
  /** Where its forms are found: the name of a form behind it is an address. */
  base: string;
  forms: readonly PictureForm[];
}

/** Where forms of pictures are found. */
export const PICTURES_PREFIX = "/~pictures/";

/** Where the forms of a picture are found, of the shape that they were made of. */
export function formsBase({ id, digest, formed }: Pick<KeptPicture, "id" | "digest" | "formed">): string {
  return `${PICTURES_PREFIX}${id}-${digest.slice(0, 12)}-${formed ?? 0}/`;
}

/** What a page shows of a picture; undefined for one that has no size. */
export function shownPicture(picture: KeptPicture): ShownPicture | undefined {
  const { forms } = picture;
  // Of several of a width, any tells the proportions; a card has its own.
  const whole =
    forms.find(({ name }) => name === WHOLE) ?? forms.filter(({ name }) => name !== CARD.name).at(-1);
  const width = whole?.width ?? picture.width;
  const height = whole?.height ?? picture.height;
  return width && height ? { width, height, base: formsBase(picture), forms } : undefined;
}
