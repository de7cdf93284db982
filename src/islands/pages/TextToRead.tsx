import { useQuery } from "@tanstack/react-query";
import type { Site } from "../../core/sites/site.ts";
import { mayHere } from "../../ui/client/rights.ts";
import { asking } from "../../ui/client/queries.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** A page's title and text where they will be written, from what came with the screen, until the editor is there. */
export function TextToRead({ site, pageId }: { site: Site; pageId: string }) {
  const { data: page } = useQuery({
    ...asking("GET /sites/:site/pages/:id", { site: site.id, id: pageId }),
    staleTime: Infinity,
  });
  const [view] = useAddressState("view");
  const home = site.hosts.find(({ role }) => role === "primary")!.url;
  // What stands at the page's head when it can be written is told here, so that the server writes it.
  if (page) when(page.updatedAt);
  if (!page) return <p className="text-quiet">{say.fetchingThePage}</p>;
  return (
    <div aria-busy="true">
      <h1 className="mb-2 border border-transparent py-0.5 text-xl font-semibold">{page.title}</h1>
      {view === "" && mayHere({ role: "editor" }) ? (
        <div className="beside-rope mt-10">
          <div className="rope-tools h-9" />
          <section aria-label={say.text} className="rope-text rounded border border-line bg-sheet">
            <div
              className="prose-page"
              // The text as it is kept: made by our own gate, which lets nothing through that acts.
              dangerouslySetInnerHTML={{ __html: withHost(page.html, home) }}
            />
          </section>
        </div>
      ) : null}
    </div>
  );
}

// In the workspace a path of the site's own would mean the workspace.
function withHost(html: string, home: string): string {
  return html.replaceAll(/(<img [^>]*?src=")\//g, `$1${new URL("/", home).href}`);
}
