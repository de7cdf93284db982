import type { Transaction } from "@tiptap/pm/state";
import type { Editor } from "@tiptap/react";
import { useCallback, useEffect, useRef, useState, type RefObject } from "react";
import { linkAtSelection, movedAlong, type LinkAt } from "./editor-links.ts";

/** The composer's place in the text: where it is open, and how it is opened and ended. */
export function useComposing(editor: Editor, column: RefObject<HTMLDivElement | null>) {
  const [composing, setComposing] = useState<LinkAt & { opening: number }>();
  const openings = useRef(0);
  const openComposer = useCallback(
    (at: LinkAt): void => setComposing({ ...at, opening: (openings.current += 1) }),
    [],
  );
  const compose = useCallback(
    (address?: string) => openComposer(linkAtSelection(editor, column.current, address)),
    [editor, column, openComposer],
  );
  // While it is open the text may change, by its author or by somebody else: its place moves along with its words.
  useEffect(() => {
    const follow = ({ transaction }: { transaction: Transaction }): void => {
      if (transaction.docChanged) setComposing((at) => at && { ...at, ...movedAlong(at, transaction) });
    };
    editor.on("transaction", follow);
    return () => void editor.off("transaction", follow);
  }, [editor]);
  return { composing, openComposer, compose, endComposing: () => setComposing(undefined) };
}
