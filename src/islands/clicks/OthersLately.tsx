import { useState } from "react";
import type { Site } from "../../core/sites/site.ts";
import { Choice } from "../../ui/fields/Choice.tsx";
import { when } from "../../ui/format/when.ts";
import { useLatestClicks, type ClicksQuestion } from "./use-clicks.ts";
import { messageOf } from "../../ui/client/api.ts";

const CLASSES = [
  { value: "bot", word: "Robots" },
  { value: "prefetch", word: "Prefetches" },
  { value: "head", word: "HEAD" },
  { value: "aside", word: "Stood aside" },
  { value: "person", word: "Persons" },
] as const;

/** Single requests, newest first, to see what was counted apart and why the numbers are what they are. */
export function OthersLately({ site, asked }: { site: Site; asked: Omit<ClicksQuestion, "by"> }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="mt-6" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="text-quiet">One by one: what was counted, and what was kept apart</summary>
      {open ? <Latest site={site} asked={asked} /> : null}
    </details>
  );
}

function Latest({ site, asked }: { site: Site; asked: Omit<ClicksQuestion, "by"> }) {
  const [group, setGroup] = useState<(typeof CLASSES)[number]["value"]>("bot");
  const latest = useLatestClicks(site, { ...asked, class: group });
  return (
    <div className="mt-2">
      <Choice label="Who" value={group} options={CLASSES} onChange={setGroup} />
      {latest.isError ? <p className="text-bad">{messageOf(latest.error)}</p> : null}
      {latest.data?.items.length === 0 ? <p className="mt-2 text-quiet">None in these days.</p> : null}
      {latest.data && latest.data.items.length > 0 ? (
        <table className="mt-2 w-full text-left text-sm">
          <thead className="text-quiet">
            <tr className="border-b border-line">
              {["When", "Route", "Device", "Came from", "Page of ours"].map((word) => (
                <th key={word} scope="col" className="py-1 font-medium">
                  {word}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {latest.data.items.map((one, index) => (
              <tr key={`${one.at} ${index}`} className="border-b border-line/60">
                <td className="py-0.5 whitespace-nowrap">{when(one.at)}</td>
                <td className="font-mono text-xs">{one.address}</td>
                <td>{one.device}</td>
                <td>{one.referrer || "not told"}</td>
                <td className="font-mono text-xs">{one.page}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}
