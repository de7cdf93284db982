import { CalendarDays } from "lucide-react";
import { useId, useRef, useState, type InputHTMLAttributes, type Ref } from "react";
import { localeOf } from "../format/format.ts";
import { isDay } from "../format/iso-day.ts";
import { dayPattern, readDay, writeDay } from "../format/typed-day.ts";
import { frameData } from "../frame/frame.ts";
import { later, useTakenOver } from "../frame/later.tsx";
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
  /** Where a form moves the focus when it is wrong. */
  ref?: Ref<HTMLInputElement>;
  /** What the day is, for whoever hears the calendar. */
  label: string;
  value: string;
  /** It says itself that there is no such day; in a form, the form does. */
  isAlone?: boolean;
  className?: string;
  onChange: (value: string) => void;
}) {
  const { value, onChange } = props;
  const { language } = localeOf(frameData());
  const [text, setText] = useState(() => writeDay(value, language));
  const [known, setKnown] = useState(value);
  const [isOpen, setOpen] = useState(false);
  const [isLeft, setLeft] = useState(false);
  const id = useId();
  const button = useRef<HTMLButtonElement>(null);
  const isTakenOver = useTakenOver();
  if (known !== value) {
    // Said from elsewhere: picked, reset, gone back.
    setKnown(value);
    if ((readDay(text, language) ?? text) !== value) setText(writeDay(value, language));
  }
  // Half a day is none yet.
  const isWrong = isLeft && text.trim() !== "" && readDay(text, language) === undefined;
  return (
    <span className={`relative inline-flex ${props.className ?? ""}`}>
      <input
        {...props.attributes}
        ref={props.ref}
        className="field pr-8"
        size={12}
        autoComplete="off"
        placeholder={dayPattern(language)}
        readOnly={!isTakenOver}
        aria-invalid={props.attributes?.["aria-invalid"] ?? (isWrong || undefined)}
        aria-describedby={isWrong && props.isAlone ? id : props.attributes?.["aria-describedby"]}
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          onChange(readDay(target.value, language) ?? target.value.trim());
        }}
        onFocus={() => setLeft(false)}
        onBlur={() => {
          setLeft(true);
          setText(writeDay(readDay(text, language) ?? text, language));
        }}
      />
      <button
        ref={button}
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
      {isWrong && props.isAlone ? (
        <span
          id={id}
          role="status"
          className="absolute top-full left-0 z-10 bg-paper text-sm whitespace-nowrap text-bad"
        >
          {say.noSuchDay}
        </span>
      ) : null}
      {isOpen ? (
        <Calendar
          label={props.label}
          language={language}
          day={isDay(value) ? value : undefined}
          onPick={onChange}
          onClose={() => {
            setOpen(false);
            button.current?.focus();
          }}
        />
      ) : null}
    </span>
  );
}
