import { READING_WORD, READINGS, readAs } from "../../../core/address/repair/read-as.ts";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import type { DeliveredLink } from "../rope/use-delivered.ts";
import type { LinkAt } from "./editor-links.ts";
import * as say from "../words.ts";

/** Says that what the composer was opened on is not in the text any more. */
export function Gone({ at }: { at: LinkAt }) {
  return (
    <p role="alert" className="text-bad">
      {say.notInTheTextAnyMoreNothing(
        at.picture
          ? say.thePictureThatThisWasOpenedOn
          : at.words
            ? say.theWordsOnWhichThisWasOpened(at.words)
            : say.thePlaceThatThisWasOpenedOn,
      )}
    </p>
  );
}

/** What an address is understood as, and where it ends. */
export function KindLine({ judged, address }: { judged: DeliveredLink; address: string }) {
  const { kind, ends, look } = judged;
  return (
    <span className={`flex items-center gap-1.5 ${kind === "broken" ? "text-bad" : ""}`}>
      <Knot kind={kind} size={14} /> {say.understoodAs(KIND_WORD[kind])}
      {look.title ? <span className="truncate">: “{look.title}”</span> : null}
      {look.draft ? <span className="text-warn">{say.draft}</span> : null}
      {ends !== address ? <span className="truncate"> {say.thatEndsAt(ends)}</span> : null}
    </span>
  );
}

/** Reads what was typed as another kind of address than it was taken for. */
export function ReadAs({ text, onRead }: { text: string; onRead: (address: string) => void }) {
  return (
    <p className="flex flex-wrap gap-x-2 text-xs text-quiet">
      {say.meantOtherwiseReadItAs}
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
      <p className="text-sm font-medium">{say.delivered}</p>
      <code
        data-testid="delivered"
        className="block rounded bg-sunk px-2 py-1.5 font-mono text-xs wrap-anywhere"
      >
        {tag}
      </code>
    </div>
  );
}
