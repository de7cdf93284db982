import { CalendarDays } from "lucide-react";
import { useState, type InputHTMLAttributes } from "react";
import { localeOf } from "../format/format.ts";
import { dayPattern, isDay, readDay, writeDay } from "../format/typed-day.ts";
import { frameData } from "../frame/frame.ts";
import { later } from "../frame/later.tsx";
import * as say from "../words.ts";

const Calendar = later(async () => (await import("./Calendar.tsx")).Calendar);

/**
 * A day, typed in the order of the site's language or picked from a calendar. Its value is YYYY-MM-DD, empty, or what was
 * typed and is no day: whoever takes it says so.
 */
export function DayInput(props: {
  attributes?: Pick<
    InputHTMLAttributes<HTMLInputElement>,
    "id" | "aria-invalid" | "aria-describedby" | "aria-label"
  >;
  /** What the day is, for whoever hears the calendar. */
  label: string;
  value: string;
  readOnly?: boolean;
  className?: string;
  onChange: (value: string) => void;
}) {
  const { value, onChange } = props;
  const { language } = localeOf(frameData());
  const [text, setText] = useState(() => writeDay(value, language));
  const [known, setKnown] = useState(value);
  const [isOpen, setOpen] = useState(false);
  if (known !== value) {
    // Said from elsewhere: picked, reset, gone back.
    setKnown(value);
    if ((readDay(text, language) ?? text) !== value) setText(writeDay(value, language));
  }
  const isWrong = text.trim() !== "" && readDay(text, language) === undefined;
  return (
    <span className={`relative inline-flex ${props.className ?? ""}`}>
      <input
        {...props.attributes}
        className="field pr-8"
        size={12}
        inputMode="numeric"
        autoComplete="off"
        placeholder={dayPattern(language)}
        readOnly={props.readOnly}
        aria-invalid={props.attributes?.["aria-invalid"] ?? (isWrong || undefined)}
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          onChange(readDay(target.value, language) ?? target.value.trim());
        }}
        onBlur={() => setText(writeDay(value, language))}
      />
      <button
        type="button"
        className="action action-plain absolute inset-y-0 right-0 px-1.5"
        aria-label={say.pickDay(props.label)}
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        onPointerEnter={Calendar.fetchSoon}
        onFocus={Calendar.fetchSoon}
        onClick={() => setOpen(true)}
      >
        <CalendarDays size={15} aria-hidden />
      </button>
      {isOpen ? (
        <Calendar
          label={props.label}
          language={language}
          day={isDay(value) ? value : undefined}
          onPick={onChange}
          onClose={() => setOpen(false)}
        />
      ) : null}
    </span>
  );
}
