import type { ClicksAnswer } from "../../core/clicks/clicks.ts";
import { Bars } from "../../ui/charts/Bars.tsx";
import type { Mark } from "../../ui/charts/chart.ts";
import { SERIES } from "./series.ts";
import * as say from "./words.ts";

const MAX_NAMES = 25;
/** Beside the list of the routes that are used most. */
const USUAL_WIDTH_PX = 872;

/** Clicks as a chart: over days and hours as bars that stand, over names as bars that lie. */
export function ClicksChart({ answer, marks }: { answer: ClicksAnswer; marks: readonly Mark[] }) {
  const { total, by } = answer;
  const time = by === "day" || by === "hour";
  const rows = time ? answer.items : answer.items.slice(0, MAX_NAMES);
  const label = say.clicksPerFromToByPeopleBy(
    by,
    answer.from,
    answer.to,
    total.clicks,
    total.bots,
    total.prefetches,
  );
  return (
    <Bars
      rows={rows}
      before={time ? answer.before?.items : undefined}
      series={SERIES}
      marks={by === "day" ? marks : []}
      label={label}
      heightPx={time || rows.length > 12 ? 384 : 288}
      usualWidthPx={USUAL_WIDTH_PX}
      lying={!time}
    />
  );
}
