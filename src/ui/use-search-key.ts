import { useEffect, useRef, type RefObject } from "react";

/** Lets the key f go to a list's search field, unless somebody is typing. */
export function useSearchKey(): RefObject<HTMLInputElement | null> {
  const search = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const focus = (event: KeyboardEvent): void => {
      const typing = (event.target as HTMLElement).closest("input, textarea, select, [contenteditable=true]");
      if (event.key !== "f" || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      search.current?.focus();
    };
    addEventListener("keydown", focus);
    return () => removeEventListener("keydown", focus);
  }, []);
  return search;
}
