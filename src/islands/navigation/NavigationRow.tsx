import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import type { KeyboardEvent } from "react";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import type { PageSummary } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import type { FlatItem } from "../../core/navigation/branches.ts";
import { later } from "../../ui/frame/later.tsx";
import { KIND_WORDS } from "./kind-words.ts";
import * as say from "./words.ts";

const EntryFields = later(async () => (await import("./EntryFields.tsx")).EntryFields);

/** One entry of the navigation: where it stands, what it says, where it leads. */
export function NavigationRow(props: {
  site: Site;
  item: FlatItem;
  pages: readonly PageSummary[];
  open: boolean;
  onOpen: (open: boolean) => void;
  onChange: (part: Partial<NavigationItem>) => void;
  onRemove: () => void;
  onMove: (step: 1 | -1) => void;
  onShift: (step: 1 | -1) => void;
}) {
  const { item, pages, open } = props;
  const sortable = useSortable({ id: item.id });
  const page = pages.find(({ id }) => id === item.page);
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!event.altKey) return void sortable.listeners?.onKeyDown?.(event);
    const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key] as 1 | -1 | undefined;
    if (!step) return;
    event.preventDefault();
    if (event.key === "ArrowUp" || event.key === "ArrowDown") props.onMove(step);
    else props.onShift(step);
  };
  return (
    <li
      ref={sortable.setNodeRef}
      style={{
        transform: CSS.Translate.toString(sortable.transform),
        transition: sortable.transition,
        marginLeft: `min(${item.level * 28}px, ${item.level * 6}vw)`,
      }}
      className={`mb-1 rounded border bg-sheet ${sortable.isDragging ? "z-10 border-accent shadow-lg" : "border-line"}`}
    >
      <div className="flex flex-wrap items-center gap-2 px-2 py-1">
        <button
          data-needs="editor"
          ref={sortable.setActivatorNodeRef}
          {...sortable.attributes}
          {...sortable.listeners}
          onKeyDown={onKeyDown}
          className="cursor-grab text-quiet"
          aria-label={say.move(item.label || say.theEntry)}
        >
          <GripVertical size={16} aria-hidden />
        </button>
        <span className={item.kind === "heading" ? "font-semibold" : "font-medium"}>
          {item.label || <span className="text-bad">{say.noLabel}</span>}
        </span>
        <span className="text-sm text-quiet">{KIND_WORDS[item.kind].toLowerCase()}</span>
        <span className="min-w-0 truncate font-mono text-xs text-quiet">
          {page ? page.path : (item.address ?? (item.kind === "heading" ? say.leadsNowhereItself : ""))}
        </span>
        {page?.status === "draft" ? (
          <span className="text-xs text-warn">{say.draftReadersDoNotSeeIt}</span>
        ) : null}
        {item.target ? (
          <span className="text-xs text-accent">{item.target === "new" ? say.newTab : say.sameTab}</span>
        ) : null}
        <button
          data-needs="editor"
          className="action action-plain ml-auto"
          aria-expanded={open}
          onClick={() => props.onOpen(!open)}
        >
          {open ? say.done : say.change}
          <span className="sr-only"> {item.label}</span>
        </button>
        <button data-needs="editor" className="action action-plain text-bad" onClick={props.onRemove}>
          {say.remove}
          <span className="sr-only"> {item.label}</span>
        </button>
      </div>
      {open ? <EntryFields site={props.site} item={item} pages={pages} onChange={props.onChange} /> : null}
    </li>
  );
}
