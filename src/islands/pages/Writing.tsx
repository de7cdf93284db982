import { useRef, useState } from "react";
import { useEditor, type Editor } from "@tiptap/react";
import { bodyToHtml } from "../../core/pages/body/to-html.ts";
import type { Page } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { later } from "../../ui/frame/later.tsx";
import { mayHere } from "../../ui/client/rights.ts";
import { useAddressState } from "../../ui/client/url-state.ts";
import type { Backup } from "./draft/backup.ts";
import { PageHead } from "./PageHead.tsx";
import { editorExtensions } from "./picture/editor-picture.ts";
import { takeDocument } from "./draft/take-document.ts";
import { writtenBody } from "./draft/written-body.ts";
import { TextView } from "./TextView.tsx";
import type { AdoptedFrom } from "./draft/draft-view.ts";
import { useDraft } from "./draft/use-draft.ts";
import * as say from "./words.ts";

// Each view's libraries come when it is first opened.
const Fetching = () => <p className="text-quiet">{say.fetchingThisView}</p>;
const HtmlView = later(async () => (await import("./source/HtmlView.tsx")).default, Fetching);
const PreviewView = later(async () => (await import("./preview/PreviewView.tsx")).default, Fetching);
const CompareView = later(async () => (await import("./versions/CompareView.tsx")).default, Fetching);
const ConflictPanel = later(async () => (await import("./versions/ConflictPanel.tsx")).ConflictPanel);

const VIEWS = [
  { value: "text", word: say.text },
  { value: "html", word: say.html },
  { value: "preview", word: say.preview },
  { value: "compare", word: say.compare },
] as const;
// Whoever may not write reads: as delivered, and as it was.
const READ_VIEWS = VIEWS.slice(2);
// A text of some hundred thousand words would take a browser's editor too long; source is drawn line by line.
const LONGEST_TEXT = 1_500_000;
// Pixels at the window's edges that the masthead and the tools cover.
const OUT_OF_SIGHT = { top: 170, bottom: 40, left: 0, right: 0 };
const NOTHING = { type: "doc", content: [{ type: "paragraph" }] };

type View = (typeof VIEWS)[number]["value"];

/** A page that is being written: one draft, seen as text, as source, as a reader gets it, or beside another version. */
export function Writing({ site, first, backup }: { site: Site; first: Page; backup: Backup | undefined }) {
  const [shown, setShown] = useAddressState("view");
  const isLong = first.html.length > LONGEST_TEXT;
  const views = mayHere({ role: "editor" }) ? (isLong ? VIEWS.slice(1) : VIEWS) : READ_VIEWS;
  const view: View = views.find(({ value }) => value === shown)?.value ?? views[0]!.value;
  const editorRef = useRef<Editor>(null);
  const [adoptions, setAdoptions] = useState(0);
  const adopted = (page: Page, from: AdoptedFrom): void => {
    if (!isLong && editorRef.current) takeDocument(editorRef.current, page.body as object);
    if (from === "others") setAdoptions((count) => count + 1);
  };
  const draft = useDraft(site, first, backup, adopted);
  const home = site.hosts.find(({ role }) => role === "primary")!.url;
  const editor = useEditor({
    extensions: editorExtensions(home),
    content: (isLong ? NOTHING : (backup?.change.body ?? first.body)) as object,
    immediatelyRender: true,
    shouldRerenderOnTransaction: false,
    editorProps: {
      scrollThreshold: OUT_OF_SIGHT,
      scrollMargin: OUT_OF_SIGHT,
      attributes: {
        class: "prose-page",
        role: "textbox",
        "aria-multiline": "true",
        "aria-label": say.textOfThePage,
      },
    },
    onUpdate: ({ editor: changed }) => {
      draft.edit({ body: () => writtenBody(changed.state.doc) });
    },
  });
  editorRef.current = editor;
  if (!editor) return null;
  const turnTo = (next: View): void => {
    void draft.saveNow();
    setShown(next === "text" ? "" : next);
  };
  return (
    <>
      <PageHead site={site} draft={draft} />
      {draft.conflict ? (
        <ConflictPanel draft={draft} text={editor.getText({ blockSeparator: "\n\n" })} />
      ) : null}
      {isLong ? (
        <p role="status" className="mb-2 text-warn">
          {say.thisPageHasMillionCharactersItIs(Math.round(first.html.length / 100_000) / 10)}
        </p>
      ) : null}
      <div className="mb-1 flex flex-wrap items-center gap-3">
        <Choice label={say.view} value={view} options={views} onChange={turnTo} />
        {draft.others.length > 0 ? (
          <p role="status" className="text-sm text-warn">
            {say.thisPageOpenToo(draft.others.join(" and "), draft.others.length === 1 ? say.has : say.have)}
          </p>
        ) : null}
      </div>
      {view === "text" ? (
        <TextView site={site} draft={draft} editor={editor} />
      ) : view === "html" ? (
        <HtmlView
          key={adoptions}
          site={site}
          draft={draft}
          html={() => (isLong ? draft.page.html : bodyToHtml(editor.getJSON()))}
        />
      ) : view === "preview" ? (
        <PreviewView site={site} draft={draft} />
      ) : (
        <CompareView site={site} draft={draft} />
      )}
    </>
  );
}
