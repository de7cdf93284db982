import { CLICK_GROUPINGS, type ClickGrouping } from "../../core/clicks/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { hrefOf } from "../../ui/client/api.ts";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { CsvLink } from "../../ui/filter/CsvLink.tsx";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ViewChoice } from "../../ui/filter/ViewChoice.tsx";
import { Choice } from "../../ui/fields/Choice.tsx";
import { useClicksAsked } from "./use-clicks-asked.ts";
import { spanOf } from "./use-clicks.ts";
import { FilterDay } from "../../ui/filter/FilterDay.tsx";
import * as say from "./words.ts";

const WORDS: Readonly<Record<ClickGrouping, string>> = {
  day: say.day,
  hour: say.hour,
  route: say.route,
  page: say.page,
  referrer: say.cameFrom,
  device: say.device,
  program: say.program,
};

/** By what clicks are counted, of which days, and how they are shown; all of it stands in the screen's address. */
export function ClicksBar({ site, by }: { site: Site; by: ClickGrouping }) {
  const [compare] = useAddressState("compare");
  const asked = useClicksAsked();
  const { span, from, to, route: routeId } = asked;
  const exported = { by, ...spanOf(asked), ...(routeId ? { route: routeId } : {}) };
  return (
    <FilterBar
      view={
        <ViewChoice
          name="by"
          label={say.countedBy}
          usual="day"
          options={CLICK_GROUPINGS.filter((one) => !routeId || one !== "route").map((one) => [
            one,
            WORDS[one],
          ])}
        />
      }
      actions={
        <>
          <ViewChoice
            name="view"
            label={say.shownAs}
            usual="chart"
            options={[
              ["chart", say.chart],
              ["table", say.table],
            ]}
          />
          <CsvLink href={hrefOf("GET /sites/:site/clicks/export", { site: site.id, query: exported })} />
        </>
      }
    >
      <Choice
        label={say.days}
        value={from || to ? "chosen" : String(span)}
        options={["14", "60", "365"].map((value) => ({ value, word: say.days2(value) }))}
        onChange={(value) => setAddressState({ days: value === "60" ? "" : value, from: "", to: "" })}
      />
      <FilterDay name="from" label={say.from} />
      <FilterDay name="to" label={say.to} />
      <label className="flex items-center gap-1.5 text-sm">
        <input
          type="checkbox"
          checked={compare === "1"}
          onChange={(event) => setAddressState({ compare: event.target.checked ? "1" : "" })}
        />
        {say.withThePeriodBefore}
      </label>
    </FilterBar>
  );
}
