import { useEffect, useRef, useState } from "react";
import { keysOf } from "./key-words.ts";
import { useKey } from "./use-key.ts";
import * as say from "../words.ts";

/** What keys do on this screen, shown by the key “?”. */
export function KeysHelp() {
  const [isOpen, setOpen] = useState(false);
  useKey("?", () => setOpen(true));
  return isOpen ? <KeysDialog onClose={() => setOpen(false)} /> : null;
}

function KeysDialog({ onClose }: { onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const shown = dialog.current!;
    shown.showModal();
    return () => shown.close();
  }, []);
  const screen = location.pathname.split("/").slice(2).join("/");
  return (
    <dialog
      ref={dialog}
      aria-labelledby="keys-help"
      className="m-auto w-full max-w-md rounded border border-line bg-sheet p-5 text-ink shadow-xl backdrop:bg-black/30"
      onClose={onClose}
    >
      <h2 id="keys-help" className="text-lg font-semibold">
        {say.keys}
      </h2>
      {keysOf(screen).map(({ title, keys }) => (
        <section key={title} className="mt-3">
          <h3 className="text-sm text-quiet">{title}</h3>
          <dl className="mt-1 grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1">
            {keys.map(({ keys: pressed, does }) => (
              <div key={does} className="contents">
                <dt>
                  {pressed.map((one) => (
                    <kbd
                      key={one}
                      className="mr-1 rounded border border-line bg-sunk px-1.5 font-mono text-sm"
                    >
                      {one}
                    </kbd>
                  ))}
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <form method="dialog" className="mt-4">
        <button className="action">{say.close}</button>
      </form>
    </dialog>
  );
}
