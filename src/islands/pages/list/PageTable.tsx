import type { PageSummary } from "../../../core/pages/page.ts";
import type { Site } from "../../../core/sites/site.ts";
import { when } from "../../../ui/format/format.ts";
import { PageState } from "../../../ui/frame/PageState.tsx";
import { Knot } from "../../../ui/links/Knot.tsx";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";

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
      word: "Title",
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
      word: "Path",
      sort: "up",
      cell: ({ path }) => <span className="font-mono text-[0.86em] text-quiet">{path}</span>,
    },
    {
      key: "category",
      word: "Category",
      sort: "up",
      className: "max-md:hidden",
      cell: ({ category }) => category,
    },
    { key: "links", word: "Links", className: "max-md:hidden", cell: (page) => <SmallRope page={page} /> },
    {
      key: "state",
      word: "State",
      cellClass: "whitespace-nowrap",
      cell: (page) => <PageState page={page} />,
    },
    {
      key: "updatedAt",
      word: "Last saved",
      sort: "down",
      className: "max-sm:hidden",
      cellClass: "text-sm whitespace-nowrap text-quiet",
      cell: ({ updatedAt, updatedBy }) => `${when(updatedAt)} by ${updatedBy}`,
    },
  ];
  return (
    <DataTable
      label="Pages"
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
  if (page.links === 0) return <span className="text-quiet">none</span>;
  return (
    <span className="flex items-center gap-px" title={`${page.links} links, ${page.outside} outside`}>
      <span className="sr-only">
        {page.links} links, {page.outside} outside
      </span>
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.knots.map((kind, index) => (
        <Knot key={index} kind={kind} size={13} />
      ))}
      <span className="h-0.5 w-2 bg-hemp" aria-hidden />
      {page.links > page.knots.length ? (
        <span className="text-sm text-quiet">and {page.links - page.knots.length} more</span>
      ) : null}
    </span>
  );
}
