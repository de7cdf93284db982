import { useAddressState } from "../client/url-state.ts";
import { DayInput } from "../fields/DayInput.tsx";
import { isDay } from "../format/iso-day.ts";

/** A day that a list begins or ends with; it stands in the screen's address as YYYY-MM-DD. What is no day narrows nothing. */
export function FilterDay({ name, label }: { name: string; label: string }) {
  const [day, setDay] = useAddressState(name);
  return (
    <span className="flex items-center gap-1 text-sm text-quiet">
      <span aria-hidden>{label}</span>
      <DayInput
        attributes={{ "aria-label": label }}
        label={label}
        isAlone
        value={day}
        onChange={(typed) => {
          if (typed === "" || isDay(typed)) setDay(typed);
        }}
      />
    </span>
  );
}
