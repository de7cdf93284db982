import type { PageSummary } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { when } from "../../../ui/format/format.ts";
import { PageState } from "../../../ui/frame/PageState.tsx";
import { Knot } from "../../../ui/links/Knot.tsx";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import * as say from "../words.ts";

/** The pages of a site, each with a short rope of its links. */
export function PageTable(props: {
  site: Site;
  items: PageSummary[];
  sort: string;
  setSort: (sort: string) => void;
}) {
  const columns: Column<PageSummary>[] = [
    {
      key: "title",
      word: say.title,
      sort: "up",
      head: true,
      cell: ({ id, title }) => (
        <a className="font-medium hover:text-accent hover:underline" href={`/${props.site.key}/pages/${id}`}>
          {title}
        </a>
      ),
    },
    {
      key: "path",
      word: say.path,
      sort: "up",
      cell: ({ path }) => <span className="font-mono text-[0.86em] text-quiet">{path}</span>,
    },
    {
      key: "category",
      word: say.category,
      sort: "up",
      className: "max-md:hidden",
      cell: ({ category }) => category,
    },
    { key: "links", word: say.links, className: "max-md:hidden", cell: (page) => <SmallRope page={page} /> },
    {
      key: "state",
      word: say.state,
      cellClass: "whitespace-nowrap",
      cell: (page) => <PageState page={page} />,
    },
    {
      key: "updatedAt",
      word: say.lastSaved,
      sort: "down",
      className: "max-sm:hidden",
      cellClass: "text-sm whitespace-nowrap text-quiet",
      cell: ({ updatedAt, updatedBy }) => say.by(when(updatedAt), updatedBy),
    },
  ];
  return (
    <DataTable
      label={say.pages2}
      rows={props.items}
      columns={columns}
      keyOf={({ id }) => id}
      sort={props.sort}
      setSort={props.setSort}
      rowClass={() => "hover:bg-sheet"}
      isLong
    />
  );
}

/** The page's links in the order of its text, as knots on a short rope. */
function SmallRope({ page }: { page: PageSummary }) {
  if (page.links === 0) return <span className="text-quiet">{say.none}</span>;
  return (
    <span className="flex items-center gap-px" title={say.linksOutside(page.links, page.outside)}>
      <span className="sr-only">{say.linksOutside(page.links, page.outside)}</span>
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.knots.map((kind, index) => (
        <Knot key={index} kind={kind} size={13} />
      ))}
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.links > page.knots.length ? (
        <span className="text-sm text-quiet">{say.andMore(page.links - page.knots.length)}</span>
      ) : null}
    </span>
  );
}
