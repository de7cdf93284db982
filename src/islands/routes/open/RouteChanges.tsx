import { useRouteHistory } from "../use-routes.ts";
import type { Site } from "../../../core/sites/site.ts";
import { changeInWords } from "./change-in-words.ts";
import { HistoryLink } from "../../../ui/links/HistoryLink.tsx";
import { when } from "../../../ui/format/format.ts";
import * as say from "../words.ts";

/** Who changed a route, and when. */
export function RouteChanges({ site, id }: { site: Site; id: string }) {
  const history = useRouteHistory(site, id);
  if (!history.data || history.data.items.length === 0) return null;
  return (
    <details className="mt-3 text-sm">
      <summary className="text-quiet">{say.changes(history.data.items.length)}</summary>
      <ol className="mt-1 grid gap-1">
        {history.data.items.map((one) => (
          <li key={one.at + one.action} className="border-b border-line/60 pb-1">
            <span className="text-quiet">
              {when(one.at)}, {one.by}:
            </span>{" "}
            {changeInWords(one)}
          </li>
        ))}
      </ol>
      <HistoryLink site={site} kind="route" object={id} />
    </details>
  );
}
