import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { useLatestClicks, type ClicksQuestion } from "./use-clicks.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import { messageOf, type Answer } from "../../ui/client/api.ts";
import { when } from "../../ui/format/format.ts";
import * as say from "./words.ts";

const CLASSES = [
  { value: "bot", word: say.robots },
  { value: "prefetch", word: say.prefetches },
  { value: "head", word: say.head },
  { value: "aside", word: say.stoodAside },
  { value: "person", word: say.people },
] as const;

type Request = Answer<"GET /sites/:site/clicks/latest">["items"][number];

const COLUMNS: readonly Column<Request>[] = [
  { key: "at", word: say.when, cellClass: "whitespace-nowrap", cell: ({ at }) => when(at) },
  { key: "route", word: say.route, cellClass: "font-mono text-xs", cell: ({ address }) => address },
  { key: "device", word: say.device, cell: ({ device }) => device },
  { key: "referrer", word: say.cameFrom, cell: ({ referrer }) => referrer || say.notTold },
  { key: "page", word: say.pageOfOurs, cellClass: "font-mono text-xs", cell: ({ page }) => page },
];

/** Single requests, newest first, to see what was counted apart and why the numbers are what they are. */
export function OthersLately({ site, asked }: { site: Site; asked: Omit<ClicksQuestion, "by"> }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-6" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="text-quiet">{say.latestRequestsCountedOrNot}</summary>
      {open ? <Latest site={site} asked={asked} /> : null}
    </details>
  );
}

function Latest({ site, asked }: { site: Site; asked: Omit<ClicksQuestion, "by"> }) {
  const [group, setGroup] = useState<(typeof CLASSES)[number]["value"]>("bot");
  const latest = useLatestClicks(site, { ...asked, class: group });
  return (
    <div className="mt-2">
      <Choice label={say.who} value={group} options={CLASSES} onChange={setGroup} />
      {latest.isError ? <p className="text-bad">{messageOf(latest.error)}</p> : null}
      {latest.data?.items.length === 0 ? <p className="mt-2 text-quiet">{say.noneInTheseDays}</p> : null}
      {latest.data && latest.data.items.length > 0 ? (
        <DataTable
          label={say.singleRequests}
          rows={latest.data.items}
          columns={COLUMNS}
          keyOf={(one) => `${one.at} ${latest.data.items.indexOf(one)}`}
          dense
        />
      ) : null}
    </div>
  );
}
