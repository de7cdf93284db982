import type { LinkBulkAnswer } from "../../../core/ledger/ledger.ts";

const PLACE_WORD = { page: "page", block: "block", navigation: "navigation", route: "route" } as const;

/** Each change before it is made: where, which words, what stands there and what will. */
export function ChangePreview({ answer }: { answer: LinkBulkAnswer }) {
  const { changes, refused, links, pages, routes } = answer;
  const all = links + routes;
  return (
    <div className="grid gap-1">
      <p className="text-sm" aria-live="polite">
        {all === 0 ? (
          "None of the marked links would change."
        ) : (
          <>
            <strong>{links.toLocaleString("en-GB")}</strong> {links === 1 ? "link" : "links"} in{" "}
            <strong>{pages.toLocaleString("en-GB")}</strong> {pages === 1 ? "place" : "places"}
            {routes > 0 ? (
              <>
                {" "}
                and <strong>{routes.toLocaleString("en-GB")}</strong> {routes === 1 ? "route" : "routes"}
              </>
            ) : null}{" "}
            would change{changes.length < all ? `; the first ${changes.length} of them:` : ":"}
          </>
        )}
      </p>
      {changes.length + refused.length > 0 ? (
        <div className="@container max-h-64 overflow-auto" tabIndex={0}>
          <table aria-label="What would change" className="w-full text-left text-sm">
            <tbody>
              {changes.map((change, index) => (
                <tr
                  key={index}
                  className="border-b border-line/60 align-baseline @max-2xl:block @max-2xl:py-1"
                >
                  <td className="py-0.5 pr-3 whitespace-nowrap text-quiet @max-2xl:inline-block @max-2xl:py-0">
                    {PLACE_WORD[change.place]}
                    {change.edition === "published" ? ", published" : ""}
                  </td>
                  <td className="max-w-60 truncate py-0.5 pr-3 font-mono text-[0.9em] @max-2xl:inline-block @max-2xl:py-0 @max-2xl:align-bottom">
                    {change.where}
                  </td>
                  <td className="max-w-48 truncate py-0.5 pr-3 @max-2xl:inline-block @max-2xl:py-0 @max-2xl:align-bottom">
                    {change.words}
                  </td>
                  <td className="py-0.5 @max-2xl:block @max-2xl:py-0">
                    <del className="font-mono break-all text-bad no-underline">{change.before}</del>{" "}
                    <ins className="font-mono break-all text-good no-underline">→ {change.after}</ins>
                  </td>
                </tr>
              ))}
              {refused.map(({ where, message }, index) => (
                <tr key={`refused ${index}`} className="text-warn">
                  <td className="py-0.5 pr-3">stays</td>
                  <td className="py-0.5 pr-3 font-mono text-[0.9em]">{where}</td>
                  <td colSpan={2} className="py-0.5">
                    {message}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </div>
  );
}
