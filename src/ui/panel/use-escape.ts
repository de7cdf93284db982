import { useEffect, useRef } from "react";

/** Lets Escape close what stands beside a table, wherever the focus is: nothing that is open above it takes the key first. */
export function useEscape(close: () => void): void {
  const latest = useRef(close);
  useEffect(() => {
    latest.current = close;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      if (event.key !== "Escape" || event.defaultPrevented || event.isComposing) return;
      const above = (event.target as Element | null)?.closest?.(
        "dialog, [role=dialog], [role=menu], [aria-expanded=true]",
      );
      if (!above) latest.current();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, []);
}
