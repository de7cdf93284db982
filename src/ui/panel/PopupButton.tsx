import { useState } from "react";
import { later } from "../frame/later.tsx";
import type { PopupProps } from "./popup-props.ts";

const Popup = later(async () => (await import("./Popup.tsx")).default, Closed);

function Closed({ sign: Sign, word, ...does }: Pick<PopupProps, "sign" | "word"> & { onClick?: () => void }) {
  return (
    <button
      type="button"
      aria-haspopup="dialog"
      aria-expanded={false}
      className="action py-1 text-sm"
      onPointerEnter={Popup.fetchSoon}
      onFocus={Popup.fetchSoon}
      onClick={does.onClick}
    >
      <Sign size={14} aria-hidden /> {word}
    </button>
  );
}

/** A button below which something opens; what it takes to open it is fetched when somebody goes there. */
export function PopupButton(props: PopupProps) {
  const [isWanted, want] = useState(false);
  return isWanted ? (
    <Popup {...props} />
  ) : (
    <Closed sign={props.sign} word={props.word} onClick={() => want(true)} />
  );
}
