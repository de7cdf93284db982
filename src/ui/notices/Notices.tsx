import { LoaderCircle, Undo2, X } from "lucide-react";
import { useEffect, useRef, useSyncExternalStore } from "react";
import { useStale } from "../client/stale.ts";
import { currentNotices, dismiss, holdNotices, subscribe, type Notice } from "./notices.ts";
import { SignInAgain } from "../frame/SignInAgain.tsx";
import { queries } from "../client/queries.ts";
import * as say from "../words.ts";

const NONE: readonly Notice[] = [];
const noNotices = (): readonly Notice[] => NONE;

/** What was done lately, with undo where there is one; and whether the screen is behind it. */
export function Notices() {
  const behind = useStale(queries);
  const notices = useSyncExternalStore(subscribe, currentNotices, noNotices);
  const place = useRef<HTMLDivElement>(null);
  // The newest undo is one key away, wherever one is.
  useEffect(() => {
    const reach = (event: KeyboardEvent): void => {
      if (!event.altKey || event.ctrlKey || event.metaKey || event.key.toLowerCase() !== "u") return;
      const newest = [...(place.current?.querySelectorAll<HTMLElement>("[data-undo]") ?? [])].at(-1);
      if (!newest) return;
      event.preventDefault();
      newest.focus();
    };
    addEventListener("keydown", reach);
    return () => removeEventListener("keydown", reach);
  }, []);
  useEffect(() => {
    // What was pointed at or focused may have gone with its notice.
    if (notices.length > 0) return;
    holdNotices("pointer", false);
    holdNotices("focus", false);
  }, [notices.length]);
  return (
    <>
      <SignInAgain />
      <div
        ref={place}
        role="status"
        aria-live="polite"
        // One that comes up under a pointer that rests, over what was just pressed, is not held by it.
        onPointerMove={() => holdNotices("pointer", true)}
        onPointerLeave={() => holdNotices("pointer", false)}
        onFocus={() => holdNotices("focus", true)}
        onBlur={() => holdNotices("focus", false)}
        className="fixed bottom-[calc(1rem+var(--marked-bar,0px))] left-4 z-50 flex max-w-[min(30rem,calc(100vw-2rem))] flex-col gap-2"
      >
        {behind ? (
          <p className="flex items-center gap-2 rounded border border-line bg-sheet px-3 py-2 text-quiet shadow-lg">
            <LoaderCircle size={15} aria-hidden className="animate-spin motion-reduce:animate-none" />
            {say.readingWhatWasChangedLastThisFollows}
          </p>
        ) : null}
        {notices.map((notice) => (
          <div
            key={notice.id}
            className={`flex items-center gap-3 rounded border bg-sheet px-3 py-2 shadow-lg ${notice.tone === "failed" ? "border-bad text-bad" : "border-line"}`}
          >
            <span>{notice.text}</span>
            {notice.undo ? (
              <button
                data-undo
                aria-keyshortcuts="Alt+U"
                title={say.altUBringsYouHere}
                className="action action-plain font-semibold text-accent"
                onClick={() => {
                  notice.undo?.();
                  dismiss(notice.id);
                }}
              >
                <Undo2 size={15} aria-hidden /> {notice.undoWord ?? say.undo}
              </button>
            ) : null}
            <button
              className="ml-auto text-quiet hover:text-ink"
              aria-label={say.closeThisNotice}
              onClick={() => dismiss(notice.id)}
            >
              <X size={15} aria-hidden />
            </button>
          </div>
        ))}
      </div>
    </>
  );
}
