import type { Crop, Focus } from "../../../core/files/picture.ts";

/** A point on a picture, in parts of its width and height. */
export interface Point {
  x: number;
  y: number;
}

/** What the fields hold: whole percents. */
export interface ShapeTyped {
  left: number;
  top: number;
  width: number;
  height: number;
  x: number;
  y: number;
}

const percent = (part: number): number => Math.round(part * 100);
const within = (part: number): number => Math.min(1, Math.max(0, part));

export function typedShape(crop: Crop | null, focus: Focus | null): ShapeTyped {
  const { left, top, width, height } = crop ?? { left: 0, top: 0, width: 1, height: 1 };
  const { x, y } = focus ?? { x: 0.5, y: 0.5 };
  return {
    left: percent(left),
    top: percent(top),
    width: percent(width),
    height: percent(height),
    x: percent(x),
    y: percent(y),
  };
}

/** What is said; nothing where all is shown, or the middle is meant. */
export function saidShape(typed: ShapeTyped): { crop: Crop | null; focus: Focus | null } {
  const { left, top, width, height, x, y } = typed;
  const isWhole = left === 0 && top === 0 && width === 100 && height === 100;
  return {
    crop: isWhole ? null : { left: left / 100, top: top / 100, width: width / 100, height: height / 100 },
    focus: x === 50 && y === 50 ? null : { x: x / 100, y: y / 100 },
  };
}

/** The part between two points of a picture, in whatever direction it was drawn, in whole percents. */
export function drawnCrop(from: Point, to: Point): Pick<ShapeTyped, "left" | "top" | "width" | "height"> {
  const [left, right] = [from.x, to.x].map(within).sort((a, b) => a - b) as [number, number];
  const [top, bottom] = [from.y, to.y].map(within).sort((a, b) => a - b) as [number, number];
  return {
    left: percent(left),
    top: percent(top),
    width: Math.max(1, percent(right) - percent(left)),
    height: Math.max(1, percent(bottom) - percent(top)),
  };
}

/** A point of the whole picture as one of the part that is shown, in whole percents. */
export function focusAt({ x, y }: Point, crop: Crop | null): Pick<ShapeTyped, "x" | "y"> {
  const { left, top, width, height } = crop ?? { left: 0, top: 0, width: 1, height: 1 };
  return { x: percent(within((x - left) / width)), y: percent(within((y - top) / height)) };
}
