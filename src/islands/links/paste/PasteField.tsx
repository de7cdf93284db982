import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState, type KeyboardEvent } from "react";
import type { FrameSite } from "../../../ui/frame/frame-site.ts";
import { Answers } from "../../../ui/frame/Answers.tsx";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { later, useTakenOver } from "../../../ui/frame/later.tsx";
import { useKey } from "../../../ui/keys/use-key.ts";
import { asking } from "../../../ui/client/queries.ts";
import { messageOf } from "../../../ui/client/api.ts";
import * as say from "../words.ts";

// The field stands on every screen; what it can do is fetched when somebody goes there.
const PasteKnown = later(async () => (await import("./PasteKnown.tsx")).default);
const ShortLinkMaker = later(async () => (await import("./ShortLinkMaker.tsx")).default);

/** The field at the top of every screen: paste anything, see what is known of it, act on it. `/` goes there. */
export function PasteField({ site }: { site: FrameSite }) {
  return (
    <Answers>
      <Field site={site} />
    </Answers>
  );
}

function Field({ site }: { site: FrameSite }) {
  const [text, setText] = useState("");
  const [open, setOpen] = useState(false);
  const [making, setMaking] = useState(false);
  const [slug, setSlug] = useState("");
  const input = useRef<HTMLInputElement>(null);
  const panel = useRef<HTMLDivElement>(null);
  const pasted = useDebounced(text.trim(), 120);
  const known = useQuery({
    ...asking("POST /sites/:site/paste", { site: site.id, body: { text: pasted } }),
    enabled: pasted !== "",
    placeholderData: (previous) => previous,
  });

  useKey("/", () => {
    input.current?.focus();
    input.current?.select();
  });

  const close = (): void => {
    setOpen(false);
    setMaking(false);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === "Escape") {
      close();
      input.current?.focus();
    }
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (step === 0 || making) return;
    event.preventDefault();
    const stops = [
      input.current!,
      ...(panel.current?.querySelectorAll<HTMLElement>("a[href], button") ?? []),
    ];
    const at = stops.indexOf(document.activeElement as HTMLElement);
    stops[Math.min(stops.length - 1, Math.max(0, at + step))]?.focus();
  };

  // What is known may still be of what stood there before; whatever acts waits until it is of what stands there now.
  const isCurrent = known.data !== undefined && !known.isPlaceholderData && pasted === text.trim();
  const [entered, setEntered] = useState<string>();
  useEffect(() => {
    if (!isCurrent || entered !== pasted) return;
    setEntered(undefined);
    if (known.data?.address && known.data.kind === "external") setMaking(true);
  }, [isCurrent, entered, pasted, known.data]);

  const shown = open && pasted !== "" && (known.data !== undefined || known.isError);
  return (
    <div
      className="relative"
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget as Node | null)) close();
      }}
    >
      <input
        ref={input}
        role="combobox"
        aria-label={say.pasteAnAddressOrTypeWordsTo}
        aria-expanded={shown}
        aria-controls="paste-known"
        aria-keyshortcuts="/"
        className="field bg-paper py-1.5 font-mono text-sm"
        placeholder={say.pasteAnAddressOrTypeWords}
        value={text}
        readOnly={!useTakenOver()}
        onFocus={() => {
          setOpen(true);
          PasteKnown.fetchSoon();
          ShortLinkMaker.fetchSoon();
        }}
        onChange={(event) => {
          setText(event.target.value);
          setOpen(true);
          setMaking(false);
          setEntered(undefined);
          setSlug("");
        }}
        onKeyDown={(event) => {
          if (event.key !== "Enter" || text.trim() === "") return;
          event.preventDefault();
          setEntered(text.trim());
        }}
      />
      {shown ? (
        <div
          id="paste-known"
          ref={panel}
          tabIndex={-1}
          className="absolute top-full right-0 left-0 z-40 mt-1 max-h-[75vh] overflow-auto rounded border border-line bg-sheet p-3 shadow-xl"
        >
          {known.isError ? <p className="text-bad">{messageOf(known.error)}</p> : null}
          {known.data ? (
            <div inert={!isCurrent} aria-busy={!isCurrent} className={isCurrent ? "" : "opacity-50"}>
              <PasteKnown
                site={site}
                text={text}
                known={known.data}
                making={making}
                onMake={() => setMaking(true)}
                onInserted={close}
                onMeant={(meant) => {
                  setText(meant);
                  input.current?.focus();
                }}
                onTracked={(built) => {
                  setText(built.address);
                  setSlug(built.slug);
                  input.current?.focus();
                }}
              />
            </div>
          ) : null}
          {making && isCurrent && known.data?.address ? (
            <ShortLinkMaker
              key={known.data.address}
              site={site}
              destination={known.data.address}
              slug={slug}
              onDone={close}
            />
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
