import { ChevronDown, ChevronUp } from "lucide-react";
import { useMemo, useState, type ReactNode } from "react";
import type { Fix } from "../../../core/pages/check/finding.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { KnotButton } from "./KnotButton.tsx";
import { ROPE_FILTERS, passes, type RopeFilter } from "./rope-filter.ts";
import { useNear } from "./use-near.ts";
import type { RopeLink } from "./rope-link.ts";
import * as say from "../words.ts";

const KNOT_HEIGHT = 64;
const FINDING_HEIGHT = 34;

/** How much of the rope a knot takes, in pixels. */
export function heightOf({ findings }: Pick<RopeLink, "findings">): number {
  return KNOT_HEIGHT + findings.length * FINDING_HEIGHT;
}

/**
 * The margin's rope: a knot for each link, level with its words or as near as its neighbours allow. It can be
 * thinned to some kinds of link, and walked along with the keyboard.
 */
export function Rope(props: {
  links: readonly RopeLink[];
  /** Index of the link whose words are chosen. */
  chosen: number | undefined;
  panel: ReactNode;
  panelTop: number;
  empty: string;
  onChoose: (index: number) => void;
  onFix: (index: number, fix: Fix) => void;
}) {
  const { links, chosen } = props;
  const [filter, setFilter] = useState<RopeFilter>("all");
  const shown = useMemo(
    () =>
      links.flatMap((link, index) =>
        passes(filter, link.delivered, link.findings) ? [{ link, index }] : [],
      ),
    [links, filter],
  );
  const tops = useMemo(
    () => spread(shown.map(({ link }) => ({ top: link.top, height: heightOf(link) }))),
    [shown],
  );
  const [near, setRope] = useNear();
  const walk = (step: 1 | -1): void => {
    const at = shown.findIndex(({ index }) => index === chosen);
    const next = at === -1 ? (step === 1 ? 0 : shown.length - 1) : (at + step + shown.length) % shown.length;
    if (shown[next]) props.onChoose(shown[next].index);
  };
  const counts = useMemo(
    () =>
      Object.fromEntries(
        ROPE_FILTERS.map((one) => [
          one,
          links.filter(({ delivered, findings }) => passes(one, delivered, findings)).length,
        ]),
      ),
    [links],
  );
  const height = (tops.at(-1) ?? 0) + KNOT_HEIGHT * 2;
  return (
    <aside aria-label={say.linksOfThisPage} className="contents">
      <div className="rope-bar flex min-h-[34px] items-center gap-1 self-end bg-paper pb-1 text-sm">
        <Choice
          label={say.whichLinks}
          value={filter}
          options={ROPE_FILTERS.map((one) => ({
            value: one,
            word: counts[one] ? `${one} ${counts[one]}` : one,
          }))}
          onChange={setFilter}
        />
        <button
          className="action action-plain ml-auto px-1"
          aria-label={say.previousLinkAlt}
          aria-keyshortcuts="Alt+ArrowUp"
          onClick={() => walk(-1)}
        >
          <ChevronUp size={16} aria-hidden />
        </button>
        <button
          className="action action-plain px-1"
          aria-label={say.nextLinkAlt}
          aria-keyshortcuts="Alt+ArrowDown"
          data-walk="next"
          onClick={() => walk(1)}
        >
          <ChevronDown size={16} aria-hidden />
        </button>
      </div>
      <div ref={setRope} className="rope-line relative" style={{ minHeight: height }}>
        <div className="rope absolute top-0 bottom-0 left-[8px]" aria-hidden />
        {props.panel ? (
          <div className="beside-words">
            <div style={{ height: Math.max(0, props.panelTop - 10) }} />
            <div className="rope-panel">{props.panel}</div>
          </div>
        ) : null}
        {links.length === 0 && !props.panel ? (
          <p className="ml-8 pt-1 text-sm text-quiet">{props.empty}</p>
        ) : null}
        {links.length > 0 && shown.length === 0 ? (
          <p className="ml-8 pt-1 text-sm text-quiet">{say.noLinkOfThisPageIs(filter)}</p>
        ) : null}
        <ol className="contents">
          {shown.map(({ link, index }, place) =>
            Math.abs(tops[place]! - near) < 2600 ? (
              <li key={link.key} className="absolute right-0 left-0" style={{ top: tops[place]! - 2 }}>
                <KnotButton
                  link={link}
                  current={chosen === index}
                  onChoose={() => props.onChoose(index)}
                  onFix={(fix) => props.onFix(index, fix)}
                />
              </li>
            ) : null,
          )}
        </ol>
      </div>
    </aside>
  );
}

// Knots keep their order and never lie on each other; the first of a crowd is level with its words.
function spread(knots: readonly { top: number; height: number }[]): number[] {
  let free = 0;
  return knots.map(({ top, height }) => {
    const place = Math.max(top, free);
    free = place + height;
    return place;
  });
}
