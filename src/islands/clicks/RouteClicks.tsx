import type { Site } from "../../core/sites/site.ts";
import { Bars } from "../../ui/charts/Bars.tsx";
import { SERIES } from "./series.ts";
import { useClicks } from "./use-clicks.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** A route's last 60 days, small. */
export function RouteClicks({ site, routeId }: { site: Site; routeId: string }) {
  const clicks = useClicks(site, { by: "day", span: 60, route: routeId });
  if (!clicks.data) return <div className="h-28" />;
  const { clicks: persons, asides } = clicks.data.total;
  return (
    <>
      {asides > 0 ? (
        <p className="mb-1 text-sm text-warn">
          {say.inTheLast60DaysItStood(count(asides), asides === 1 ? say.time : say.times)}
        </p>
      ) : null}
      <Bars
        rows={clicks.data.items}
        series={SERIES.slice(0, 1)}
        label={say.clicksInTheLast60Days(persons)}
        heightPx={112}
        bare
      />
    </>
  );
}
