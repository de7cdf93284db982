import { useMutation, useQuery } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import type { Site } from "../../core/sites/site.ts";
import { PageState } from "../../ui/frame/PageState.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { when } from "../../ui/format/when.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { asking } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";

/** The shared blocks: content that stands on many pages, written like a page. */
export function BlocksScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="blocks" />
      <Blocks site={site} />
    </Screen>
  );
}

const PLACE_WORD = { footer: "in the footer", sidebar: "beside the text" } as const;

function Blocks({ site }: { site: Site }) {
  const blocks = useQuery(asking("GET /sites/:site/blocks", { site: site.id }));
  const make = useMutation({
    mutationFn: () =>
      api("POST /sites/:site/blocks", {
        site: site.id,
        body: {
          title: "Untitled block",
          placement: { place: "footer", shown: "all", on: [] },
        },
      }),
    onSuccess: ({ id }) => location.assign(`/${site.key}/pages/${id}`),
  });
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <p className="text-sm text-quiet">
          A block stands on many pages, with links like any page. {"{{name}}"} in its text or addresses is
          filled from the site’s variables.
        </p>
        <button
          className="action action-main ml-auto"
          disabled={make.isPending}
          onClick={() => make.mutate()}
        >
          <Plus size={16} aria-hidden /> New block
        </button>
      </div>
      {make.isError || blocks.isError ? (
        <p className="text-bad">{messageOf(make.error ?? blocks.error)}</p>
      ) : null}
      {blocks.data?.items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-20 text-center text-quiet">
          No shared blocks yet. “New block” begins one, for a footer that stands below every page, say.
        </p>
      ) : (
        <table className="w-full border-collapse text-left">
          <thead className="text-sm text-quiet">
            <tr className="border-b border-line">
              {["Name", "Stands", "On", "Links", "State", "Last saved"].map((word) => (
                <th key={word} scope="col" className="py-1.5 pr-3 font-medium">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {blocks.data?.items.map((block) => (
              <tr key={block.id} className="border-b border-line/60 hover:bg-sheet">
                <td className="py-1.5 pr-3">
                  <a
                    className="font-medium hover:text-accent hover:underline"
                    href={`/${site.key}/pages/${block.id}`}
                  >
                    {block.title}
                  </a>
                </td>
                <td className="py-1.5 pr-3">{block.placement ? PLACE_WORD[block.placement.place] : ""}</td>
                <td className="py-1.5 pr-3">
                  {block.placement?.shown === "all" ? "all pages" : block.placement?.on.join(", ")}
                </td>
                <td className="py-1.5 pr-3">{block.links}</td>
                <td className="py-1.5 pr-3">
                  <PageState page={block} />
                </td>
                <td className="py-1.5 text-sm text-quiet">{when(block.updatedAt)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
