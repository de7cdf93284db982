import { bodyToHtml } from "../../../core/pages/body/to-html.ts";
import type { Page } from "../../../core/pages/page.ts";

/** True when everything of a change stands in the page as it was saved. */
export function isSavedIn({ body, html, ...fields }: Record<string, unknown>, page: Page): boolean {
  const isSame = Object.entries(fields).every(
    ([name, value]) => inOrder(value) === inOrder(page[name as keyof Page]),
  );
  const text = body === undefined ? html : bodyToHtml(body);
  return isSame && (text === undefined || text === page.html);
}

// The database keeps the names of an object in an order of its own.
function inOrder(value: unknown): string | undefined {
  return JSON.stringify(value, (_name, part: unknown) =>
    typeof part === "object" && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );
}
