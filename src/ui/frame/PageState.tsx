import type { PageSummary } from "../../core/pages/page.ts";

/** Draft, published, or published with changes that readers do not get yet. */
export function PageState({ page }: { page: Pick<PageSummary, "status" | "changed"> }) {
  if (page.status === "draft") return <span className="text-warn">Draft</span>;
  return page.changed ? (
    <span className="text-warn">Published, draft ahead</span>
  ) : (
    <span className="text-good">Published</span>
  );
}
