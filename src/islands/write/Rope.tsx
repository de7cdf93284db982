import type { ReactNode } from "react";
import { addressParts } from "../../core/address/display.ts";
import { KIND_WORD, Knot } from "../../ui/Knot.tsx";
import type { DeliveredLink } from "./use-delivered.ts";
import type { KnotAt } from "./use-rope.ts";

const KNOT_HEIGHT = 64;

/** The margin's rope: a knot for each link, level with its words or as near as its neighbours allow. */
export function Rope(props: {
  knots: readonly KnotAt[];
  delivered: (knot: KnotAt) => DeliveredLink | undefined;
  chosen: number | undefined;
  composer: ReactNode;
  composerTop: number;
  onChoose: (knot: KnotAt) => void;
}) {
  const tops = spread(props.knots.map(({ top }) => top));
  const height = (tops.at(-1) ?? 0) + KNOT_HEIGHT * 2;
  return (
    <aside aria-label="Links of this page" className="relative pt-[38px]" style={{ minHeight: height }}>
      <div className="rope absolute top-0 bottom-0 left-[8px]" aria-hidden />
      {props.composer ? (
        <div className="absolute right-0 left-6 z-20" style={{ top: Math.max(0, props.composerTop + 24) }}>
          {props.composer}
        </div>
      ) : null}
      {props.knots.length === 0 && !props.composer ? (
        <p className="ml-8 text-sm text-quiet">
          No links yet. Mark words in the text and press Ctrl K; each link gets its knot here.
        </p>
      ) : null}
      <ol className="contents">
        {props.knots.map((knot, index) => (
          <li
            key={`${knot.from}-${knot.link.href}`}
            className="absolute right-0 left-0"
            style={{ top: tops[index]! + 34 }}
          >
            <KnotButton
              knot={knot}
              delivered={props.delivered(knot)}
              current={props.chosen === knot.from}
              onChoose={props.onChoose}
            />
          </li>
        ))}
      </ol>
    </aside>
  );
}

function KnotButton(props: {
  knot: KnotAt;
  delivered: DeliveredLink | undefined;
  current: boolean;
  onChoose: (knot: KnotAt) => void;
}) {
  const { knot, delivered } = props;
  const kind = delivered?.kind ?? "external";
  const { host, after } = addressParts(knot.link.href);
  const attributes = delivered
    ? [delivered.resolved.target === "_blank" ? "new tab" : "", ...delivered.resolved.rel]
        .filter(Boolean)
        .join(" ")
    : "…";
  return (
    <button
      onClick={() => props.onChoose(knot)}
      className={`group flex w-full items-start gap-2 rounded pr-2 text-left ${props.current ? "bg-wash" : "hover:bg-sheet"}`}
    >
      <span className="grid size-6 shrink-0 place-items-center rounded-full bg-paper">
        <Knot kind={kind} size={19} />
      </span>
      <span className="min-w-0 grow pt-0.5 text-sm leading-snug">
        <span className="block truncate font-medium">{knot.words || "(no words)"}</span>
        <span className="block truncate text-quiet">
          {KIND_WORD[kind]} <span className="font-mono text-xs">{host || after}</span>
        </span>
        {attributes ? <span className="block truncate font-mono text-xs text-ink">{attributes}</span> : null}
        {knot.link.override ? (
          <span className="text-xs text-accent">set by hand: {knot.link.override}</span>
        ) : null}
      </span>
    </button>
  );
}

// Knots keep their order and never lie on each other; the first of a crowd is level with its words.
function spread(tops: readonly number[]): number[] {
  let free = 0;
  return tops.map((top) => {
    const place = Math.max(top, free);
    free = place + KNOT_HEIGHT;
    return place;
  });
}
