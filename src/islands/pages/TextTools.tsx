import type { Editor } from "@tiptap/react";
import { useEditorState } from "@tiptap/react";
import { ChooseFiles } from "../../ui/fields/ChooseFiles.tsx";
import { pictureDefaults } from "./picture/picture-defaults.ts";
import * as say from "./words.ts";

const TOOLS: readonly { word: string; name: string; level?: number; run: (editor: Editor) => void }[] = [
  { word: say.strong, name: "bold", run: (editor) => editor.chain().focus().toggleBold().run() },
  { word: say.emphasis, name: "italic", run: (editor) => editor.chain().focus().toggleItalic().run() },
  {
    word: say.heading,
    name: "heading",
    level: 2,
    run: (editor) => editor.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    word: say.subheading,
    name: "heading",
    level: 3,
    run: (editor) => editor.chain().focus().toggleHeading({ level: 3 }).run(),
  },
  { word: say.list, name: "bulletList", run: (editor) => editor.chain().focus().toggleBulletList().run() },
  { word: say.steps, name: "orderedList", run: (editor) => editor.chain().focus().toggleOrderedList().run() },
  { word: say.quote, name: "blockquote", run: (editor) => editor.chain().focus().toggleBlockquote().run() },
];

/** What can be done with the words, as words; and what can be put beside them. */
export function TextTools(props: {
  editor: Editor;
  compose: () => void;
  addFiles: (files: readonly File[]) => void;
  takeSnippet: (html: string) => void;
}) {
  const { editor, compose } = props;
  const active = useEditorState({
    editor,
    selector: ({ editor: now }) =>
      TOOLS.map(({ name, level }) => now.isActive(name, level ? { level } : undefined)),
  });
  return (
    <div role="toolbar" aria-label={say.text} className="flex flex-wrap items-center gap-x-1 pb-1.5 text-sm">
      <button
        className="action"
        onMouseDown={keepSelection}
        onClick={compose}
        aria-keyshortcuts="Control+K Meta+K"
      >
        {say.link} <kbd className="font-mono text-xs text-quiet">Ctrl K</kbd>
      </button>
      {TOOLS.map(({ word, run }, index) => (
        <button
          key={word}
          className={`rounded px-2 py-1 ${active[index] ? "bg-wash font-medium text-accent" : "text-quiet hover:text-ink"}`}
          aria-pressed={active[index]}
          onMouseDown={keepSelection}
          onClick={() => run(editor)}
        >
          {word}
        </button>
      ))}
      <ChooseFiles
        label={say.picturesOrFilesToPutIntoThe}
        className="rounded px-2 py-1 text-quiet hover:text-ink"
        onChoose={props.addFiles}
      >
        {say.pictureOrFile}
      </ChooseFiles>
      <button
        className="rounded px-2 py-1 text-quiet hover:text-ink"
        aria-label={say.pictureFromTheWeb}
        onClick={() => putPicture(editor)}
      >
        {say.pictureFromTheWeb}
      </button>
      <button
        className="rounded px-2 py-1 text-quiet hover:text-ink"
        aria-label={say.pasteASnippetFromTheClipboard}
        onClick={() => void navigator.clipboard.readText().then(props.takeSnippet, () => undefined)}
      >
        {say.snippet}
      </button>
    </div>
  );
}

// An empty picture opens its panel, where the address is written.
function putPicture(editor: Editor): void {
  const at = editor.state.selection.to;
  editor
    .chain()
    .focus()
    .insertContentAt(at, { type: "image", attrs: { src: "", alt: "", ...pictureDefaults() } })
    .run();
  let place: number | undefined;
  editor.state.doc.nodesBetween(
    Math.max(0, at - 1),
    Math.min(editor.state.doc.content.size, at + 3),
    (node, position) => {
      if (node.type.name === "image" && !node.attrs.src) place ??= position;
    },
  );
  if (place !== undefined) editor.commands.setNodeSelection(place);
}

function keepSelection(event: React.MouseEvent): void {
  event.preventDefault();
}
