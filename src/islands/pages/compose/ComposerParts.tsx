import { READING_WORD, READINGS, readAs } from "../../../core/address/repair/read-as.ts";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import type { DeliveredLink } from "../rope/use-delivered.ts";
import type { LinkAt } from "./editor-links.ts";

/** Says that what the composer was opened on is not in the text any more. */
export function Gone({ at }: { at: LinkAt }) {
  return (
    <p role="alert" className="text-bad">
      {at.picture
        ? "The picture that this was opened on is"
        : at.words
          ? `The words “${at.words}”, on which this was opened, are`
          : "The place that this was opened on is"}{" "}
      not in the text any more. Nothing will be set; close this, and mark the words anew.
    </p>
  );
}

/** What an address is understood as, and where it ends. */
export function KindLine({ judged, address }: { judged: DeliveredLink; address: string }) {
  const { kind, ends, look } = judged;
  return (
    <span className={`flex items-center gap-1.5 ${kind === "broken" ? "text-bad" : ""}`}>
      <Knot kind={kind} size={14} /> Understood as {KIND_WORD[kind]}
      {look.title ? <span className="truncate">: “{look.title}”</span> : null}
      {look.draft ? <span className="text-warn">(draft)</span> : null}
      {ends !== address ? <span className="truncate"> that ends at {ends}</span> : null}
    </span>
  );
}

/** Reads what was typed as another kind of address than it was taken for. */
export function ReadAs({ text, onRead }: { text: string; onRead: (address: string) => void }) {
  return (
    <p className="flex flex-wrap gap-x-2 text-xs text-quiet">
      Meant otherwise? Read it as
      {READINGS.map((reading) => (
        <button
          key={reading}
          type="button"
          className="py-1 text-accent underline underline-offset-2"
          onClick={() => onRead(readAs(text, reading))}
        >
          {READING_WORD[reading]}
        </button>
      ))}
    </p>
  );
}

/** The tag that readers get. */
export function Delivered({ tag }: { tag: string }) {
  return (
    <div>
      <p className="text-sm font-medium">Delivered</p>
      <code
        data-testid="delivered"
        className="block rounded bg-sunk px-2 py-1.5 font-mono text-xs wrap-anywhere"
      >
        {tag}
      </code>
    </div>
  );
}
