import { useRef, type RefObject } from "react";
import { useKey } from "./use-key.ts";

/** Lets the key f go to a list's search field, unless somebody is typing. */
export function useSearchKey(): RefObject<HTMLInputElement | null> {
  const search = useRef<HTMLInputElement>(null);
  useKey("f", () => search.current?.focus());
  return search;
}
