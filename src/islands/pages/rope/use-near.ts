import { useCallback, useEffect, useState } from "react";

const STEP = 600;

/**
 * How far down an element the middle of the window is, in steps of some hundred pixels: what lies far from it
 * need not be drawn. Answers the number, and the element's ref.
 */
export function useNear(): [near: number, ref: (element: HTMLElement | null) => void] {
  const [element, setElement] = useState<HTMLElement | null>(null);
  const [near, setNear] = useState(0);
  const ref = useCallback((next: HTMLElement | null) => setElement(next), []);
  useEffect(() => {
    if (!element) return;
    const look = (): void => {
      const middle = innerHeight / 2 - element.getBoundingClientRect().top;
      setNear(Math.round(middle / STEP) * STEP);
    };
    look();
    addEventListener("scroll", look, { passive: true, capture: true });
    addEventListener("resize", look);
    return () => {
      removeEventListener("scroll", look, { capture: true });
      removeEventListener("resize", look);
    };
  }, [element]);
  return [near, ref];
}
