import { Popover } from "radix-ui";
import type { PopupProps } from "./popup-props.ts";

/** What a button opens below itself; it is open from the first. */
export default function Popup({ label, sign: Sign, word, className = "", children }: PopupProps) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className="action py-1 text-sm">
        <Sign size={14} aria-hidden /> {word}
      </Popover.Trigger>
      <Popover.Portal container={document.querySelector("main")}>
        <Popover.Content
          aria-label={label}
          align="end"
          sideOffset={4}
          className={`z-40 grid rounded border border-line bg-sheet p-3 text-sm shadow-xl ${className}`}
        >
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
