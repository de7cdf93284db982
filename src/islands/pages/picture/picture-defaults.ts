import {
  PICTURE_SIDES,
  PICTURE_WIDTHS,
  type PictureSide,
  type PictureWidth,
} from "../../../core/pages/body/picture.ts";

/** Width and side of a picture. */
export interface PictureFrame {
  width: PictureWidth | null;
  align: PictureSide | null;
}

const KEY = "maprope:picture";

/** What the last picture was given; the next one begins with it. */
export function pictureDefaults(): PictureFrame {
  const [width, align] = (localStorage.getItem(KEY) ?? "").split(" ");
  return {
    width: PICTURE_WIDTHS.find((one) => one === width) ?? null,
    align: PICTURE_SIDES.find((one) => one === align) ?? null,
  };
}

export function rememberFrame({ width, align }: PictureFrame): void {
  localStorage.setItem(KEY, `${width ?? "-"} ${align ?? "-"}`);
}
