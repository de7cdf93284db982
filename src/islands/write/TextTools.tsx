import type { Editor } from "@tiptap/react";
import { useEditorState } from "@tiptap/react";

const TOOLS: readonly { word: string; name: string; level?: number; run: (editor: Editor) => void }[] = [
  { word: "Strong", name: "bold", run: (editor) => editor.chain().focus().toggleBold().run() },
  { word: "Emphasis", name: "italic", run: (editor) => editor.chain().focus().toggleItalic().run() },
  {
    word: "Heading",
    name: "heading",
    level: 2,
    run: (editor) => editor.chain().focus().toggleHeading({ level: 2 }).run(),
  },
  {
    word: "Subheading",
    name: "heading",
    level: 3,
    run: (editor) => editor.chain().focus().toggleHeading({ level: 3 }).run(),
  },
  { word: "List", name: "bulletList", run: (editor) => editor.chain().focus().toggleBulletList().run() },
  { word: "Steps", name: "orderedList", run: (editor) => editor.chain().focus().toggleOrderedList().run() },
  { word: "Quotation", name: "blockquote", run: (editor) => editor.chain().focus().toggleBlockquote().run() },
];

/** What can be done with the words, as words. */
export function TextTools({ editor, compose }: { editor: Editor; compose: () => void }) {
  const active = useEditorState({
    editor,
    selector: ({ editor: now }) =>
      TOOLS.map(({ name, level }) => now.isActive(name, level ? { level } : undefined)),
  });
  return (
    <div role="toolbar" aria-label="Text" className="flex flex-wrap items-center gap-x-1 pb-1.5 text-sm">
      <button
        className="action"
        onMouseDown={keepSelection}
        onClick={compose}
        aria-keyshortcuts="Control+K Meta+K"
      >
        Link <kbd className="font-mono text-xs text-quiet">Ctrl K</kbd>
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
    </div>
  );
}

function keepSelection(event: React.MouseEvent): void {
  event.preventDefault();
}
