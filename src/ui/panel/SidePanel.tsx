import { X } from "lucide-react";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { rowOf } from "./row-of.ts";
import { useEscape } from "./use-escape.ts";
import * as say from "../words.ts";

/**
 * What was opened from a table, beside it. It takes the focus when it is opened by hand, Escape and Close give it back:
 * to where it came from, or to the row that was open where that is gone.
 */
export function SidePanel(props: {
  /** What it holds, for who hears it. */
  label: string;
  /** The key of the row that it was opened from. */
  of: string;
  title: ReactNode;
  /** What can be done with it as a whole, beside Close. */
  actions?: ReactNode;
  className?: string;
  /** It stands within a part of the screen that has a name of its own. */
  isWithin?: boolean;
  onClose: () => void;
  children: ReactNode;
}) {
  const { label, of, onClose } = props;
  const panel = useRef<HTMLElement>(null);
  // Fields that take the focus themselves do so before effects run; where it came from is seen before.
  const [from] = useState(() => globalThis.document?.activeElement ?? null);
  useEffect(() => {
    const opened = panel.current;
    const isByHand = from instanceof HTMLElement && from !== document.body;
    if (opened && isByHand && !opened.contains(document.activeElement)) opened.focus({ preventScroll: true });
    return () => {
      // By now what had the focus within is gone, unless another panel has taken it.
      requestAnimationFrame(() => {
        if (document.activeElement !== null && document.activeElement !== document.body) return;
        const back = from instanceof HTMLElement && from.isConnected && from !== document.body;
        (back ? from : rowOf(of))?.focus({ preventScroll: true });
      });
    };
    // A panel is of one row from its opening to its end.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEscape(onClose);
  const Part = props.isWithin ? "section" : "aside";
  return (
    <Part
      ref={panel}
      tabIndex={-1}
      aria-label={label}
      className={`rounded border border-line bg-sheet p-4 ${props.className ?? ""}`}
    >
      <div className="mb-3 flex items-start gap-2">
        <h2 className="min-w-0 grow font-semibold break-words">{props.title}</h2>
        {props.actions}
        <button className="action action-plain px-1" aria-label={say.close} onClick={onClose}>
          <X size={16} aria-hidden />
        </button>
      </div>
      {props.children}
    </Part>
  );
}
