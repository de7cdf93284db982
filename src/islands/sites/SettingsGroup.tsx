import { useEffect, useRef, type ReactNode } from "react";
import { get, useFormContext } from "react-hook-form";
import { Behind } from "../../ui/panel/Behind.tsx";

/**
 * Settings that one rarely needs, behind their word: closed, it says what they are. It opens by itself where one of its
 * fields (`names`) is refused.
 */
export function SettingsGroup(props: {
  word: string;
  /** What they are at the moment, in a line. */
  says: ReactNode;
  names: readonly string[];
  children: ReactNode;
}) {
  const box = useRef<HTMLDetailsElement>(null);
  const { errors, submitCount } = useFormContext().formState;
  const isRefused = props.names.some((name) => get(errors, name) !== undefined);
  useEffect(() => {
    const group = box.current;
    if (!isRefused || !group || group.open) return;
    group.open = true;
    // What is closed takes no focus: the form could not give it.
    group.querySelector<HTMLElement>("[aria-invalid='true']")?.focus();
  }, [isRefused, submitCount]);
  return (
    <Behind ref={box} word={props.word} says={props.says}>
      {props.children}
    </Behind>
  );
}
