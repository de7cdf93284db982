import { useEffect, useRef, type RefObject } from "react";
import { useKey } from "./use-key.ts";
import * as say from "../words.ts";

/** What can have the focus in a list: a table's row, or the first thing in its first row. */
const FIRST = say.trDataRowTabindex0TbodyTr;

/** Lets the key f go to a list's search field, unless somebody is typing; the arrow down leads from there to the rows. */
export function useSearchKey(): RefObject<HTMLInputElement | null> {
  const search = useRef<HTMLInputElement>(null);
  useKey("f", () => search.current?.focus());
  useEffect(() => {
    const field = search.current;
    const toRows = (event: KeyboardEvent): void => {
      const row = event.key === "ArrowDown" ? document.querySelector<HTMLElement>(FIRST) : null;
      if (!row) return;
      event.preventDefault();
      row.focus();
    };
    field?.addEventListener("keydown", toRows);
    return () => field?.removeEventListener("keydown", toRows);
  }, []);
  return search;
}
