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
import * as say from "./words.ts";

/** The shared blocks: content that stands on many pages, written like a page. */
export function BlocksScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="blocks" />
      <Blocks site={site} />
    </Screen>
  );
}

const PLACE_WORD = { footer: say.inTheFooter, sidebar: say.besideTheText } as const;

type Block = Answer<"GET /sites/:site/blocks">["items"][number];

function Blocks({ site }: { site: Site }) {
  const columns: Column<Block>[] = [
    {
      key: "title",
      word: say.name,
      head: true,
      cell: ({ id, title }) => (
        <a className="font-medium hover:text-accent hover:underline" href={`/${site.key}/pages/${id}`}>
          {title}
        </a>
      ),
    },
    {
      key: "place",
      word: say.stands,
      cell: ({ placement }) => (placement ? PLACE_WORD[placement.place] : ""),
    },
    {
      key: "on",
      word: say.on,
      cell: ({ placement }) => (placement?.shown === "all" ? say.allPages : placement?.on.join(", ")),
    },
    { key: "links", word: say.links, cell: ({ links }) => links },
    { key: "state", word: say.state, cell: (block) => <PageState page={block} /> },
    {
      key: "updatedAt",
      word: say.lastSaved,
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
          title: say.untitledBlock,
          placement: { place: "footer", shown: "all", on: [] },
        },
      }),
    onSuccess: ({ id }) => location.assign(`/${site.key}/pages/${id}`),
  });
  return (
    <>
      <div className="mb-3 flex items-center gap-3">
        <p className="text-sm text-quiet">{say.aBlockStandsOnManyPagesWith}</p>
        <button
          data-needs="editor"
          className="action action-main ml-auto"
          disabled={make.isPending}
          onClick={() => make.mutate()}
        >
          <Plus size={16} aria-hidden /> {say.newBlock}
        </button>
      </div>
      {make.isError || blocks.isError ? (
        <p className="text-bad">{messageOf(make.error ?? blocks.error)}</p>
      ) : null}
      {blocks.data?.items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-20 text-center text-quiet">
          {say.noSharedBlocksYetNewBlockBegins}
        </p>
      ) : (
        <DataTable
          label={say.sharedBlocks}
          rows={blocks.data?.items ?? []}
          columns={columns}
          keyOf={({ id }) => id}
          rowClass={() => "hover:bg-sheet"}
        />
      )}
    </>
  );
}
