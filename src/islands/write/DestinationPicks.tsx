import { useQuery } from "@tanstack/react-query";
import type { PasteAnswer } from "../../core/objects/paste.ts";
import type { Site } from "../../core/objects/site.ts";
import { api } from "../../ui/api.ts";
import { Knot } from "../../ui/Knot.tsx";
import { useDebounced } from "../../ui/use-debounced.ts";

/** Pages and short links whose names hold the typed words. */
export function DestinationPicks({
  site,
  text,
  onPick,
}: {
  site: Site;
  text: string;
  onPick: (address: string) => void;
}) {
  const words = useDebounced(text.trim(), 150);
  const found = useQuery({
    queryKey: ["paste", site.id, words],
    queryFn: () => api<PasteAnswer>("POST", `/sites/${site.id}/paste`, { text: words }),
    enabled: words.length > 1,
  }).data;
  if (!found) return null;
  if (found.pages.length + found.routes.length === 0) {
    return (
      <p className="text-sm text-quiet">
        No page and no short link has these words. An address has a dot in its host.
      </p>
    );
  }
  return (
    <ul aria-label="Pages and short links" className="max-h-56 overflow-auto rounded border border-line">
      {found.pages.map((page) => (
        <Pick
          key={`p${page.id}`}
          kind="page"
          title={page.title}
          address={page.path}
          note={page.status === "draft" ? "draft" : ""}
          onPick={onPick}
        />
      ))}
      {found.routes.map((route) => (
        <Pick
          key={`r${route.id}`}
          kind="route"
          title={route.title || route.address}
          address={route.host ? route.url : route.address}
          note=""
          onPick={onPick}
        />
      ))}
    </ul>
  );
}

function Pick(props: {
  kind: "page" | "route";
  title: string;
  address: string;
  note: string;
  onPick: (address: string) => void;
}) {
  return (
    <li>
      <button
        type="button"
        className="flex w-full items-center gap-2 px-2 py-1 text-left hover:bg-wash"
        onClick={() => props.onPick(props.address)}
      >
        <Knot kind={props.kind} size={14} />
        <span className="truncate">{props.title}</span>
        <span className="ml-auto shrink-0 font-mono text-xs text-quiet">{props.address}</span>
        {props.note ? <span className="text-xs text-warn">{props.note}</span> : null}
      </button>
    </li>
  );
}
