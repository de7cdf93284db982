import { useEffect, useMemo, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { hrefOf } from "../../../ui/client/api.ts";
import * as say from "../frame-words.ts";
import { areaAt, areasAround } from "./pointed-area.ts";

const POINTED = "data-maprope-pointed";
const CHOSEN = "data-maprope-area";
const MARKS = `[${POINTED}] { outline: 3px dashed #0b6b6b !important; outline-offset: 2px; cursor: pointer }
[${CHOSEN}] { outline: 4px solid #0b6b6b !important; outline-offset: 3px }`;

/** A page of the origin in a frame in which its content area is pointed at; what stands around it is chosen by its name. */
export function PointAtArea({
  site,
  path,
  selector,
  onChoose,
}: {
  site: Site;
  path: string;
  selector: string;
  onChoose(selector: string): void;
}) {
  const [shown, setShown] = useState<Document>();
  useEffect(() => {
    if (!shown) return;
    const listening = new AbortController();
    const { signal } = listening;
    const areaOf = ({ target }: Event): Element | undefined => areaAt(target as Element);
    shown.addEventListener("mouseover", (event) => mark(shown, POINTED, areaOf(event)), { signal });
    shown.addEventListener("mouseleave", () => mark(shown, POINTED, undefined), { signal });
    shown.addEventListener(
      "click",
      (event) => {
        event.preventDefault();
        const [area] = areasAround(areaOf(event) ?? shown.body);
        if (area) onChoose(area.selector);
      },
      { signal },
    );
    shown.addEventListener("submit", (event) => event.preventDefault(), { signal });
    return () => listening.abort();
  }, [shown, onChoose]);
  const area = useMemo(() => (shown ? found(shown, selector) : undefined), [shown, selector]);
  useEffect(() => {
    if (!shown) return;
    mark(shown, CHOSEN, area);
    area?.scrollIntoView({ block: "nearest" });
  }, [shown, area]);
  return (
    <div className="grid gap-1.5 grid-cols-[minmax(0,1fr)]">
      <p className="text-sm text-quiet">{say.pointAtIt}</p>
      <iframe
        title={say.thePageThere}
        className="h-[30rem] w-full rounded border border-line bg-white"
        sandbox="allow-same-origin"
        src={hrefOf("GET /sites/:site/origin/frame/page", { site: site.id, query: { path } })}
        onLoad={({ currentTarget: { contentDocument } }) => {
          if (!contentDocument?.head) return;
          const style = contentDocument.createElement("style");
          style.textContent = MARKS;
          contentDocument.head.append(style);
          setShown(contentDocument);
        }}
      />
      {area ? (
        <div className="flex flex-wrap items-center gap-1.5 text-sm" role="group" aria-label={say.around}>
          <span className="text-quiet">{say.around}</span>
          {areasAround(area)
            .reverse()
            .map((one) => (
              <button
                key={one.selector}
                type="button"
                className="action min-h-6 px-1.5 py-0 font-mono text-xs"
                aria-pressed={one.element === area}
                onClick={() => onChoose(one.selector)}
              >
                {nameOf(one.element)}
              </button>
            ))}
        </div>
      ) : null}
    </div>
  );
}

function found(shown: Document, selector: string): Element | undefined {
  try {
    return (selector === "" ? undefined : shown.querySelector(selector)) ?? undefined;
  } catch {
    // What is being typed is no selector yet.
    return undefined;
  }
}

function mark(shown: Document, name: string, element: Element | undefined): void {
  for (const marked of shown.querySelectorAll(`[${name}]`)) marked.removeAttribute(name);
  element?.setAttribute(name, "");
}

function nameOf({ localName, id, classList }: Element): string {
  return `${localName}${id ? `#${id}` : classList.length > 0 ? `.${classList[0]}` : ""}`;
}
