import { html as htmlLanguage } from "@codemirror/lang-html";
import { lintGutter } from "@codemirror/lint";
import { search } from "@codemirror/search";
import { EditorView, basicSetup } from "codemirror";
import { useEffect, useRef, useState, type RefObject } from "react";
import * as say from "../words.ts";

// Links are looked for when the typing has rested.
const REST_MS = 120;

/** An editor of source. `source` is its text when the typing rests; `edited` and whoever is in `changed` hear of each change. */
export function useSourceEditor(
  begun: string,
  edited: (now: () => string) => void,
): {
  holder: RefObject<HTMLDivElement | null>;
  view: RefObject<EditorView | undefined>;
  source: string;
  changed: RefObject<Set<() => void>>;
} {
  const holder = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(undefined);
  const [source, setSource] = useState(begun);
  const first = useRef(begun);
  const changed = useRef(new Set<() => void>());
  const editing = useRef(edited);
  useEffect(() => {
    editing.current = edited;
  });
  useEffect(() => {
    let resting: ReturnType<typeof setTimeout> | undefined;
    const made = new EditorView({
      doc: first.current,
      parent: holder.current!,
      extensions: [
        basicSetup,
        htmlLanguage(),
        search({ top: true }),
        lintGutter(),
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ "aria-label": say.htmlOfThePage }),
        EditorView.updateListener.of((update) => {
          if (!update.docChanged) return;
          clearTimeout(resting);
          resting = setTimeout(() => setSource(made.state.doc.toString()), REST_MS);
          for (const listener of changed.current) listener();
          editing.current(() => made.state.doc.toString());
        }),
      ],
    });
    view.current = made;
    return () => {
      clearTimeout(resting);
      made.destroy();
    };
  }, []);
  return { holder, view, source, changed };
}
