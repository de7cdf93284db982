import type { ClicksAnswer } from "../../core/clicks/clicks.ts";
import type { Route } from "../../core/routes/route.ts";
import { count } from "../../ui/format/format.ts";

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
      <strong>{count(total.clicks)}</strong> clicks by people, {count(total.visitors)} visitors counted once a
      day
      {before ? (
        <>
          ; {count(before.total.clicks)} in the period before ({difference(total.clicks, before.total.clicks)}
          )
        </>
      ) : null}
      .{" "}
      <span className="text-quiet">
        Apart: {count(total.bots)} by robots, {count(total.prefetches)} prefetches, {count(total.heads)} HEAD
        requests.
        {total.asides > 0 ? ` ${count(total.asides)} times a route stood aside.` : ""}
        {route?.countedFrom ? ` Since the count was reset: ${count(route.clicks)}.` : ""}
      </span>
    </p>
  );
}

function difference(now: number, before: number): string {
  if (before === 0) return now === 0 ? "the same" : "none then";
  const percent = Math.round(((now - before) / before) * 100);
  return percent === 0 ? "the same" : `${percent > 0 ? "+" : "−"}${Math.abs(percent)} %`;
}
