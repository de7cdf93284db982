/** Where screens stood before, below their site's path, and where they stand now: bookmarks go on leading there. */
const MOVED: Readonly<Record<string, string>> = {
  write: "pages",
  transfer: "pages/transfer",
  report: "ledger/report",
  mends: "routes/findings",
  "routes-in-out": "routes/transfer",
  catalogue: "programs/catalogue",
  disclosure: "rules/disclosure",
  "earlier-rules": "rules/earlier",
};

/** The present address of a screen that has moved, for the path and query that it was asked for by; undefined for all others. */
export function movedScreen(url: string): string | undefined {
  const [, site, name, id, query] = /^\/([a-z\d][a-z\d-]*)\/([a-z-]+)(\/\d+)?\/?(\?.*)?$/.exec(url) ?? [];
  if (!site || site === "api" || !name || !Object.hasOwn(MOVED, name) || (id && name !== "write"))
    return undefined;
  return `/${site}/${MOVED[name]}${id ?? ""}${query ?? ""}`;
}
