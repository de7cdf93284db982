import type { Columns } from "../../../ui/table/columns.ts";

/** What the ledger can show beside the words of a link. */
export const LEDGER_COLUMNS: Columns = {
  words: {
    page: "Page",
    href: "Leads to",
    host: "Host",
    kind: "Kind",
    treatment: "Treatment",
    rel: "Delivered rel",
    target: "Tab",
    stored: "As written",
    rule: "Decided by",
    program: "Program",
    short: "Short link",
    health: "Health",
    clicks: "Clicks",
    findings: "Findings",
  },
  standard: "page,href,rel,target,rule,findings",
};
