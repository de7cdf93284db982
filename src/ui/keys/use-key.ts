import { useEffect, useRef } from "react";

/** Lets a bare key do something anywhere on the screen, unless somebody is typing. */
export function useKey(key: string, act: () => void): void {
  const latest = useRef(act);
  useEffect(() => {
    latest.current = act;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      const typing = (event.target as HTMLElement).closest("input, textarea, select, [contenteditable=true]");
      if (event.key !== key || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      latest.current();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [key]);
}
