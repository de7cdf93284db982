/** Leads to what was done to one object, or without one to all of its kind. */
import * as say from "../words.ts";
export function HistoryLink({
  site,
  kind,
  object,
}: {
  site: { key: string };
  kind: string;
  object?: string;
}) {
  const query = new URLSearchParams({ action: kind, ...(object === undefined ? {} : { object }) });
  return (
    <a
      data-needs="editor"
      data-even-at-rest
      className="text-sm text-quiet underline decoration-line underline-offset-2 hover:decoration-accent"
      href={`/${site.key}/history?${query.toString()}`}
    >
      {object === undefined ? say.history : say.itsHistory}
    </a>
  );
}
