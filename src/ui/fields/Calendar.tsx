import { Popover } from "radix-ui";
import { DayPicker } from "react-day-picker";
import { firstDayOfWeek } from "../format/typed-day.ts";
import * as say from "../words.ts";

const CLASSES = {
  root: "p-1",
  months: "relative",
  nav: "absolute inset-x-0 top-0 flex justify-between",
  button_previous: "action action-plain px-1",
  button_next: "action action-plain px-1",
  chevron: "size-4 fill-current",
  month_caption: "flex h-8 items-center justify-center font-medium",
  month_grid: "border-collapse",
  weekday: "size-8 text-center text-sm font-normal text-quiet",
  day: "p-0 text-center",
  day_button: "size-8 cursor-pointer rounded hover:bg-wash",
  outside: "text-quiet",
  today: "font-semibold underline",
  selected: "rounded bg-ink text-paper [&_button]:hover:bg-ink",
} as const;

/** A month of days below a field, to pick one; its weeks begin as the language's country has it. */
export function Calendar(props: {
  label: string;
  language: string;
  day: string | undefined;
  onPick: (day: string) => void;
  onClose: () => void;
}) {
  const { language } = props;
  const chosen = props.day === undefined ? undefined : atMidnight(props.day);
  const written = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat(`${language}-u-ca-gregory`, options);
    return (date: Date): string => format.format(date);
  };
  return (
    <Popover.Root defaultOpen onOpenChange={(isOpen) => (isOpen ? undefined : props.onClose())}>
      <Popover.Anchor className="absolute bottom-0 left-0" />
      <Popover.Portal container={document.querySelector("main")}>
        <Popover.Content
          aria-label={props.label}
          align="start"
          sideOffset={4}
          className="z-40 rounded border border-line bg-sheet p-2 text-sm shadow-xl"
        >
          <DayPicker
            mode="single"
            autoFocus
            required
            showOutsideDays
            classNames={CLASSES}
            weekStartsOn={firstDayOfWeek(language)}
            selected={chosen}
            defaultMonth={chosen ?? new Date()}
            formatters={{
              formatCaption: written({ month: "long", year: "numeric" }),
              formatWeekdayName: written({ weekday: "short" }),
            }}
            labels={{
              labelPrevious: () => say.theMonthBefore,
              labelNext: () => say.theMonthAfter,
              labelWeekday: written({ weekday: "long" }),
              labelDayButton: written({ dateStyle: "full" }),
              labelGrid: written({ month: "long", year: "numeric" }),
            }}
            onSelect={(date) => {
              props.onPick(dayOf(date));
              props.onClose();
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

// The picker counts in the time of whoever looks; a day has none.
function atMidnight(day: string): Date {
  const [year, month, date] = day.split("-").map(Number) as [number, number, number];
  return new Date(year, month - 1, date);
}

function dayOf(date: Date): string {
  const two = (value: number): string => String(value).padStart(2, "0");
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
