import type { PageSummary } from "../../core/pages/page.ts";
import * as say from "../words.ts";

/** Draft, published, or published with changes that readers do not get yet. */
export function PageState({ page }: { page: Pick<PageSummary, "status" | "changed"> }) {
  if (page.status === "draft") return <span className="text-warn">{say.draft}</span>;
  return page.changed ? (
    <span className="text-warn">{say.publishedDraftAhead}</span>
  ) : (
    <span className="text-good">{say.published}</span>
  );
}
