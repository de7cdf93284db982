import { useMutation, useQuery } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import type { Site } from "../../core/sites/site.ts";
import { PageState } from "../../ui/frame/PageState.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { asking } from "../../ui/client/queries.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { api, messageOf, type Answer } from "../../ui/client/api.ts";
import { when } from "../../ui/format/format.ts";

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

type Block = Answer<"GET /sites/:site/blocks">["items"][number];

function Blocks({ site }: { site: Site }) {
  const columns: Column<Block>[] = [
    {
      key: "title",
      word: "Name",
      head: true,
      cell: ({ id, title }) => (
        <a className="font-medium hover:text-accent hover:underline" href={`/${site.key}/pages/${id}`}>
          {title}
        </a>
      ),
    },
    {
      key: "place",
      word: "Stands",
      cell: ({ placement }) => (placement ? PLACE_WORD[placement.place] : ""),
    },
    {
      key: "on",
      word: "On",
      cell: ({ placement }) => (placement?.shown === "all" ? "all pages" : placement?.on.join(", ")),
    },
    { key: "links", word: "Links", cell: ({ links }) => links },
    { key: "state", word: "State", cell: (block) => <PageState page={block} /> },
    {
      key: "updatedAt",
      word: "Last saved",
      cellClass: "text-sm text-quiet",
      cell: ({ updatedAt }) => when(updatedAt),
    },
  ];
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
          data-needs="editor"
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
        <DataTable
          label="Shared blocks"
          rows={blocks.data?.items ?? []}
          columns={columns}
          keyOf={({ id }) => id}
          rowClass={() => "hover:bg-sheet"}
        />
      )}
    </>
  );
}
