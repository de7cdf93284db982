import type { ClicksAnswer } from "../../core/clicks/clicks.ts";
import type { Route } from "../../core/routes/route.ts";
import { count } from "../../ui/format/format.ts";
import * as say from "./words.ts";

/** What was counted in these days, in a sentence. */
export function Total({
  answer: { total, before },
  route,
}: {
  answer: ClicksAnswer;
  route: Route | undefined;
}) {
  return (
    <p className="mt-1 mb-2">
      <strong>{count(total.clicks)}</strong> {say.clicksByPeopleVisitorsCountedOnceA(count(total.visitors))}
      {before ? (
        <>
          {say.inThePeriodBefore(count(before.total.clicks), difference(total.clicks, before.total.clicks))}
        </>
      ) : null}
      .{" "}
      <span className="text-quiet">
        {say.apartByRobotsPrefetchesHeadRequests(
          count(total.bots),
          count(total.prefetches),
          count(total.heads),
          total.asides > 0 ? say.timesARouteStoodAside(count(total.asides)) : "",
          route?.countedFrom ? say.sinceTheCountWasReset(count(route.clicks)) : "",
        )}
      </span>
    </p>
  );
}

function difference(now: number, before: number): string {
  if (before === 0) return now === 0 ? say.theSame : say.noneThen;
  const percent = Math.round(((now - before) / before) * 100);
  return percent === 0 ? say.theSame : `${percent > 0 ? "+" : "−"}${Math.abs(percent)} %`;
}
