import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { GripVertical } from "lucide-react";
import type { KeyboardEvent } from "react";
import {
  NAVIGATION_KINDS,
  type NavigationItem,
  type NavigationKind,
} from "../../core/navigation/navigation.ts";
import type { PageSummary } from "../../core/pages/page.ts";
import type { Site } from "../../core/sites/site.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { TabChoice } from "../../ui/fields/TabChoice.tsx";
import type { FlatItem } from "../../core/navigation/branches.ts";
import { NavigationAddress } from "./NavigationAddress.tsx";

const KIND_WORDS: Readonly<Record<NavigationKind, string>> = {
  page: "Page",
  address: "Outside address",
  route: "Short link",
  file: "File",
  heading: "Heading",
};

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
        marginLeft: item.level * 28,
      }}
      className={`mb-1 rounded border bg-sheet ${sortable.isDragging ? "z-10 border-accent shadow-lg" : "border-line"}`}
    >
      <div className="flex items-center gap-2 px-2 py-1">
        <button
          ref={sortable.setActivatorNodeRef}
          {...sortable.attributes}
          {...sortable.listeners}
          onKeyDown={onKeyDown}
          className="cursor-grab text-quiet"
          aria-label={`Move ${item.label || "the entry"}`}
        >
          <GripVertical size={16} aria-hidden />
        </button>
        <span className={item.kind === "heading" ? "font-semibold" : "font-medium"}>
          {item.label || <span className="text-bad">(no label)</span>}
        </span>
        <span className="text-sm text-quiet">{KIND_WORDS[item.kind].toLowerCase()}</span>
        <span className="truncate font-mono text-xs text-quiet">
          {page ? page.path : (item.address ?? (item.kind === "heading" ? "leads nowhere itself" : ""))}
        </span>
        {page?.status === "draft" ? (
          <span className="text-xs text-warn">draft: readers do not see it</span>
        ) : null}
        {item.target ? (
          <span className="text-xs text-accent">{item.target === "new" ? "new tab" : "same tab"}</span>
        ) : null}
        <button
          className="action action-plain ml-auto"
          aria-expanded={open}
          onClick={() => props.onOpen(!open)}
        >
          {open ? "Done" : "Change"}
          <span className="sr-only"> {item.label}</span>
        </button>
        <button className="action action-plain text-bad" onClick={props.onRemove}>
          Take out<span className="sr-only"> {item.label}</span>
        </button>
      </div>
      {open ? <Fields {...props} /> : null}
    </li>
  );
}

function Fields(props: {
  site: Site;
  item: FlatItem;
  pages: readonly PageSummary[];
  onChange: (part: Partial<NavigationItem>) => void;
}) {
  const { site, item, pages, onChange } = props;
  const byPage = item.kind === "page" || (item.kind === "heading" && item.address === undefined);
  return (
    <div className="grid gap-3 border-t border-line p-3 md:grid-cols-2">
      <FieldRow label="Label">
        {(field) => (
          <input
            {...field}
            autoFocus
            className="field"
            value={item.label}
            onChange={(event) => onChange({ label: event.target.value })}
          />
        )}
      </FieldRow>
      <FieldRow label="Kind">
        {(field) => (
          <select
            {...field}
            className="field"
            value={item.kind}
            onChange={(event) =>
              onChange({ kind: event.target.value as NavigationKind, page: undefined, address: undefined })
            }
          >
            {NAVIGATION_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {KIND_WORDS[kind]}
              </option>
            ))}
          </select>
        )}
      </FieldRow>
      {byPage ? (
        <FieldRow
          label={item.kind === "heading" ? "Landing page of the heading (none: it only groups)" : "Page"}
        >
          {(field) => (
            <select
              {...field}
              className="field"
              value={item.page ?? ""}
              onChange={(event) => onChange({ page: event.target.value || undefined })}
            >
              <option value="">{item.kind === "heading" ? "none" : "Choose a page"}</option>
              {pages.map((page) => (
                <option key={page.id} value={page.id}>
                  {page.title}
                  {page.status === "draft" ? " (draft)" : ""}
                </option>
              ))}
            </select>
          )}
        </FieldRow>
      ) : null}
      {item.kind !== "page" && item.page === undefined ? (
        <NavigationAddress site={site} item={item} onChange={(address) => onChange({ address })} />
      ) : null}
      <div className="self-end">
        <TabChoice value={item.target} onChange={(target) => onChange({ target })} />
      </div>
    </div>
  );
}
