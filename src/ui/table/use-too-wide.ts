import { useEffect, useRef, useState, type RefObject } from "react";

/** Whether what stands in an element is wider than the element has room for, followed as either changes. */
export function useTooWide<T extends HTMLElement>(): [room: RefObject<T | null>, isTooWide: boolean] {
  const room = useRef<T>(null);
  const [isTooWide, setTooWide] = useState(false);
  useEffect(() => {
    const element = room.current!;
    const content = element.firstElementChild as HTMLElement;
    const observer = new ResizeObserver(() => setTooWide(content.offsetWidth > element.clientWidth + 1));
    observer.observe(element);
    observer.observe(content);
    return () => observer.disconnect();
  }, []);
  return [room, isTooWide];
}
