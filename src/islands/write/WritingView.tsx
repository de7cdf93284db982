import { useQuery } from "@tanstack/react-query";
import { EditorContent, useEditor } from "@tiptap/react";
import { useCallback, useEffect, useRef, useState } from "react";
import { bodyExtensions } from "../../core/body/extensions.ts";
import type { Page } from "../../core/objects/page.ts";
import type { Site } from "../../core/objects/site.ts";
import { api, messageOf } from "../../ui/api.ts";
import { Screen } from "../../ui/Screen.tsx";
import { ConflictPanel } from "./ConflictPanel.tsx";
import { applyLink, linkAtSelection, takeOffLink, type LinkAt } from "./editor-links.ts";
import { LinkComposer } from "./LinkComposer.tsx";
import { PageHead } from "./PageHead.tsx";
import { Rope } from "./Rope.tsx";
import { TextTools } from "./TextTools.tsx";
import { useDraft } from "./use-draft.ts";
import { useDelivered } from "./use-delivered.ts";
import { useRope } from "./use-rope.ts";
import "./writing.css";

/** One page: its text, and beside it the rope with a knot for each link. */
export function WritingView(props: { site: Site; pageId: string }) {
  return (
    <Screen>
      <Loader {...props} />
    </Screen>
  );
}

function Loader({ site, pageId }: { site: Site; pageId: string }) {
  const page = useQuery({
    queryKey: ["page", pageId],
    queryFn: () => api<Page>("GET", `/sites/${site.id}/pages/${pageId}`),
    staleTime: Infinity,
    refetchOnWindowFocus: false,
  });
  if (page.isError) return <p className="text-bad">{messageOf(page.error)}</p>;
  return page.data ? (
    <Writing site={site} first={page.data} />
  ) : (
    <p className="text-quiet">Fetching the page…</p>
  );
}

function Writing({ site, first }: { site: Site; first: Page }) {
  const column = useRef<HTMLDivElement>(null);
  const [composing, setComposing] = useState<LinkAt>();
  const [chosen, setChosen] = useState<number>();
  const draft = useDraft(site, first);
  const editor = useEditor({
    extensions: bodyExtensions,
    content: first.body as object,
    immediatelyRender: true,
    editorProps: {
      attributes: {
        class: "prose-page",
        role: "textbox",
        "aria-multiline": "true",
        "aria-label": "Text of the page",
      },
    },
    onUpdate: ({ editor: changed }) => draft.edit({ body: changed.getJSON() }),
  });
  const knots = useRope(editor, column);
  const delivered = useDelivered(site, draft.fields, knots);

  const compose = useCallback(
    (address?: string) => {
      const at = editor && linkAtSelection(editor, column.current, address);
      if (at) setComposing(at);
    },
    [editor],
  );
  useEffect(() => {
    const insert = (event: Event): void => compose((event as CustomEvent<string>).detail);
    const key = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || event.key.toLowerCase() !== "k") return;
      event.preventDefault();
      // A selection made by the key before reaches the editor with the browser's next turn.
      requestAnimationFrame(() => compose());
    };
    addEventListener("maprope:insert", insert);
    addEventListener("keydown", key);
    document.documentElement.dataset.writing = "yes";
    return () => {
      removeEventListener("maprope:insert", insert);
      removeEventListener("keydown", key);
      delete document.documentElement.dataset.writing;
    };
  }, [compose]);

  const close = (): void => {
    setComposing(undefined);
    editor?.commands.focus();
  };
  if (!editor) return null;
  return (
    <>
      <PageHead site={site} draft={draft} />
      {draft.conflict ? <ConflictPanel draft={draft} editor={editor} /> : null}
      <div className="grid grow gap-x-3 lg:grid-cols-[minmax(0,1fr)_minmax(19rem,25rem)]">
        <section aria-label="Text" className="min-w-0">
          <TextTools editor={editor} compose={() => compose()} />
          <div ref={column} className="relative rounded border border-line bg-sheet">
            <EditorContent editor={editor} />
          </div>
        </section>
        <Rope
          knots={knots}
          delivered={delivered}
          chosen={chosen}
          composer={
            composing ? (
              <LinkComposer
                key={`${composing.from}-${composing.to}-${composing.address ?? ""}`}
                site={site}
                at={composing}
                page={draft.fields}
                onSet={(link) => {
                  applyLink(editor, composing, link);
                  close();
                }}
                onRemove={() => {
                  takeOffLink(editor, composing);
                  close();
                }}
                onClose={close}
              />
            ) : null
          }
          composerTop={composing?.top ?? 0}
          onChoose={(knot) => {
            setChosen(knot.from);
            editor.chain().setTextSelection({ from: knot.from, to: knot.to }).scrollIntoView().run();
            const at = linkAtSelection(editor, column.current);
            if (at) setComposing(at);
          }}
        />
      </div>
    </>
  );
}
