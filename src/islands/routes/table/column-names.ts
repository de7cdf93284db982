import type { Columns } from "../../../ui/table/columns.ts";

/** The columns that may be shown besides the address. */
export const COLUMN_WORDS: Readonly<Record<string, string>> = {
  destination: "Leads to",
  title: "Title",
  status: "Answer",
  tags: "Tags",
  health: "Health",
  clicks: "Clicks",
  lastClick: "Last",
  updatedAt: "Changed",
  createdAt: "Made",
  enabled: "On",
};

/** What the table of routes can show. */
export const ROUTE_COLUMNS: Columns = {
  words: COLUMN_WORDS,
  standard: "destination,title,status,health,clicks,lastClick,enabled",
};
