import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { MIN_PX, MAX_PX, withinBounds } from "./widths.ts";
import * as say from "../words.ts";

const STEP_PX = 16;

/** The edge of a column's head: drawn to the side, or moved by the arrows, it makes the column wider; Delete gives it up. */
export function ColumnWidth(props: {
  word: string;
  /** Its width by hand, where it has one. */
  px: number | undefined;
  /** Undefined: as wide as it needs. */
  onChange: (px: number | undefined) => void;
}) {
  const { word, onChange } = props;
  const edge = useRef<HTMLSpanElement>(null);
  const now = (): number => props.px ?? edge.current!.parentElement!.offsetWidth;
  const draw = (event: PointerEvent): void => {
    event.preventDefault();
    const from = now() - event.clientX;
    const { target, pointerId } = event;
    (target as HTMLElement).setPointerCapture(pointerId);
    const move = (moved: globalThis.PointerEvent): void => onChange(withinBounds(from + moved.clientX));
    target.addEventListener("pointermove", move as EventListener);
    target.addEventListener(
      "lostpointercapture",
      () => target.removeEventListener("pointermove", move as EventListener),
      { once: true },
    );
  };
  const press = (event: KeyboardEvent): void => {
    const step = event.key === "ArrowRight" ? STEP_PX : event.key === "ArrowLeft" ? -STEP_PX : 0;
    if (step !== 0) onChange(withinBounds(now() + step));
    else if (event.key === "Delete") onChange(undefined);
    else return;
    event.preventDefault();
  };
  return (
    <span
      ref={edge}
      role="slider"
      tabIndex={0}
      aria-label={say.widthOfTheColumn(word)}
      aria-orientation="horizontal"
      aria-valuemin={MIN_PX}
      aria-valuemax={MAX_PX}
      aria-valuenow={props.px ?? 0}
      aria-valuetext={props.px === undefined ? say.asWideAsItNeeds : say.pixels(props.px)}
      title={say.drawItToTheSideADouble}
      className="absolute top-0 -right-1.5 bottom-0 z-1 w-6 cursor-col-resize touch-none after:absolute after:inset-y-1 after:left-1/2 after:w-px after:bg-line hover:after:bg-accent focus-visible:after:w-0.5 focus-visible:after:bg-accent max-sm:hidden"
      onPointerDown={draw}
      onDoubleClick={() => onChange(undefined)}
      onKeyDown={press}
    />
  );
}
