import type { ComponentProps } from "react";
import { useTakenOver } from "../frame/later.tsx";
import * as say from "../words.ts";
import { DayInput } from "./DayInput.tsx";

const MIDNIGHT = "00:00";

/**
 * A day, and a time on it. Its value is such as 2026-11-23T14:30 (a time of the site's clocks, of no zone by itself), empty,
 * or what there is of it: whoever takes it says what is missing.
 */
export function MomentInput({
  className,
  label,
  value,
  onChange,
  ...more
}: Omit<ComponentProps<typeof DayInput>, "isAlone">) {
  const [day = "", time = ""] = value.split("T");
  const isTakenOver = useTakenOver();
  const put = (nextDay: string, nextTime: string): void =>
    onChange(nextDay === "" && nextTime === "" ? "" : `${nextDay}T${nextTime}`);
  return (
    <span className={`flex flex-wrap gap-1.5 ${className ?? ""}`}>
      <DayInput
        {...more}
        label={label}
        value={day}
        onChange={(next) => {
          // A day that is taken away takes with it the midnight that came with it.
          if (day === "" && time === "") put(next, MIDNIGHT);
          else put(next, next === "" && time === MIDNIGHT ? "" : time);
        }}
      />
      <input
        type="time"
        className="field w-auto"
        aria-label={say.timeOn(label)}
        aria-invalid={more.attributes?.["aria-invalid"]}
        aria-describedby={more.attributes?.["aria-describedby"]}
        readOnly={!isTakenOver}
        value={time}
        onChange={({ target }) => put(day, target.value)}
      />
    </span>
  );
}
