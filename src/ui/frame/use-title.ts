import { useEffect } from "react";

/** What is open by name, the last first: a link's panel may stand beside a page that is open. */
const open: string[] = [];
let base: string | undefined;

/** Lets the window's title say what is open on the screen; undefined while that is not known. */
export function useTitle(name: string | undefined): void {
  useEffect(() => {
    if (!name) return undefined;
    base ??= document.title;
    open.unshift(name);
    show();
    return () => {
      open.splice(open.indexOf(name), 1);
      show();
    };
  }, [name]);
}

function show(): void {
  document.title = open.length > 0 ? `${open[0]} · ${base}` : base!;
}
