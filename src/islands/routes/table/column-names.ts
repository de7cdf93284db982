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

export const DEFAULT_COLUMNS = "destination,title,status,health,clicks,lastClick,enabled";

/** The columns that a choice in the screen's address stands for. */
export function shownColumns(choice: string): string[] {
  return (choice || DEFAULT_COLUMNS).split(",").filter((name) => name in COLUMN_WORDS);
}
