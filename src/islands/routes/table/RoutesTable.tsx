import { useMemo } from "react";
import type { Route } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { copyText } from "../../../ui/keys/copy.ts";
import { useColumns } from "../../../ui/table/columns.ts";
import type { Selection } from "../../../ui/table/use-selection.ts";
import { WorkTable } from "../../../ui/table/WorkTable.tsx";
import { setAddressState } from "../../../ui/client/url-state.ts";
import { useDeleteRoute } from "../use-routes.ts";
import { ROUTE_COLUMNS, routeColumns } from "./columns.tsx";
import * as say from "../words.ts";

// What is left of the width goes to the destination and, if there is room, the title.
const WIDE: Readonly<Record<string, string>> = {
  clicks: "text-right",
  destination: "w-[45%]",
  title: "w-[25%] max-lg:hidden",
};
const NARROW: Readonly<Record<string, string>> = {
  destination: "max-w-0",
  title: "max-w-0 max-lg:hidden",
};
const NOT_BESIDE = ["title", "lastClick", "health", "tags", "updatedAt", "createdAt"];

/** The routes as a table; a row opens beside it. Enter opens, c copies, Delete deletes. */
export function RoutesTable(props: {
  site: Site;
  routes: Route[];
  narrow: boolean;
  openId: string;
  sort: string;
  setSort: (sort: string) => void;
  selection: Selection;
  more: (() => void) | undefined;
}) {
  const { site, narrow } = props;
  const columns = useMemo(() => routeColumns(site), [site]);
  const [shown] = useColumns(ROUTE_COLUMNS);
  const remove = useDeleteRoute(site);
  const onKey = (key: string, route: Route): boolean => {
    if (key === "Enter") setAddressState({ open: route.id });
    else if (key === "c") void copyText(route.url);
    else if (key === "Delete") remove.mutate(route);
    else return false;
    return true;
  };
  return (
    <WorkTable
      name="routes"
      rows={props.routes}
      columns={columns}
      visible={Object.fromEntries(
        Object.keys(ROUTE_COLUMNS.words).map((name) => [
          name,
          shown.includes(name) && !(narrow && NOT_BESIDE.includes(name)),
        ]),
      )}
      head={WIDE}
      cell={NARROW}
      openId={props.openId}
      sort={props.sort}
      setSort={props.setSort}
      selection={props.selection}
      more={props.more}
      nameOf={({ address }) => address}
      all={say.routes}
      isDim={({ enabled }) => !enabled}
      onKey={onKey}
    />
  );
}
