import type { ReactNode } from "react";
import { walkTags } from "../../../core/links/start-tags.ts";
import * as say from "../words.ts";

/** A link's start tag in the delivered HTML, and how it is stored. */
export interface TagPair {
  start: number;
  end: number;
  stored: string;
}

/** HTML with the rel and target of its links marked; below a link that is delivered otherwise than stored, its stored tag. */
export function MarkedSource({ html, pairs }: { html: string; pairs: readonly TagPair[] }) {
  const changed = pairs.filter(({ start, end, stored }) => html.slice(start, end) !== stored);
  return (
    <div className="max-h-[78vh] overflow-auto rounded border border-line bg-sheet p-3" tabIndex={0}>
      <p className="mb-2 text-sm">
        {changed.length === 0
          ? say.everyLinkIsDeliveredAsItIs
          : say.ofLinksAreDeliveredOtherwiseThanThey(changed.length, pairs.length)}
      </p>
      <pre className="font-mono text-xs leading-relaxed break-words whitespace-pre-wrap">
        {pieces(html, pairs)}
      </pre>
    </div>
  );
}

function pieces(html: string, pairs: readonly TagPair[]): ReactNode[] {
  const marks: { start: number; end: number }[] = [];
  walkTags(html, {
    startTag(tag) {
      if (tag.name !== "a" && tag.name !== "area") return;
      for (const { name, start, end } of tag.attributes) {
        if (name === "rel" || name === "target") marks.push({ start, end });
      }
    },
  });
  const nodes: ReactNode[] = [];
  let from = 0;
  let mark = 0;
  const upTo = (end: number): void => {
    for (; mark < marks.length && marks[mark]!.end <= end; mark += 1) {
      const { start, end: markEnd } = marks[mark]!;
      nodes.push(
        lines(html.slice(from, start)),
        <mark key={start} className="bg-wash px-0.5 text-ink">
          {html.slice(start, markEnd)}
        </mark>,
      );
      from = markEnd;
    }
    nodes.push(lines(html.slice(from, end)));
    from = end;
  };
  for (const { start, end, stored } of pairs) {
    upTo(end);
    if (html.slice(start, end) !== stored && stored !== "") {
      nodes.push(
        <del key={`stored-${start}`} className="mx-1 text-bad no-underline" title={say.asItIsStored}>
          {say.stored(stored)}
        </del>,
      );
    }
  }
  upTo(html.length);
  return nodes;
}

// One block a line reads better; what is sent has no such breaks.
function lines(text: string): string {
  return text.replace(/(<\/(?:p|h\d|li|ul|ol|blockquote|figure)>)(?=<)/g, "$1\n");
}
