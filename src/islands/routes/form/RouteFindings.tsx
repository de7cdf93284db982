import type { RouteCheck } from "../../../core/routes/route.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import * as say from "../words.ts";

/** What the linter says of a route that is being typed: what exists already, what is risky, and the mend. */
export function RouteFindings(props: {
  check: RouteCheck | undefined;
  onFix: (destination: string) => void;
}) {
  const { advice = [], existing = [] } = props.check ?? {};
  return (
    // Always there: what comes into it later is told to who hears the form.
    <div aria-live="polite" className="empty:-mt-3">
      {advice.length + existing.length > 0 ? <List {...{ advice, existing }} onFix={props.onFix} /> : null}
    </div>
  );
}

function List({
  advice,
  existing,
  onFix,
}: Pick<RouteCheck, "advice" | "existing"> & { onFix: (destination: string) => void }) {
  return (
    <ul aria-label={say.advice} className="grid gap-1.5 text-sm">
      {existing.map((route) => (
        <li key={route.id} className="rounded bg-wash px-2 py-1.5">
          {say.thisDestinationHasAShortLinkAlready} <AddressText address={route.url} />{" "}
          <button
            type="button"
            className="font-medium text-accent underline"
            onClick={() => void copyText(route.url)}
          >
            {say.copyThatOne}
          </button>
        </li>
      ))}
      {advice.map(({ code, message, fix }) => (
        <li key={code + message} className="text-warn">
          {message}{" "}
          {fix ? (
            <button type="button" className="font-medium underline" onClick={() => onFix(fix)}>
              {say.pointTo(fix)}
            </button>
          ) : null}
        </li>
      ))}
    </ul>
  );
}

/** Slugs to choose from, each with its reason. */
RouteFindings.Suggestions = function Suggestions({
  check,
  chosen,
  onPick,
}: {
  check: RouteCheck;
  chosen: string;
  onPick: (address: string) => void;
}) {
  if (check.suggestions.length === 0) return null;
  return (
    <ul aria-label={say.suggestedAddresses} className="flex flex-wrap gap-1.5">
      {check.suggestions.map(({ address, reason }) => (
        <li key={address}>
          <button
            type="button"
            aria-pressed={address === chosen}
            title={reason}
            className={`rounded border px-2 py-0.5 text-left font-mono text-xs ${address === chosen ? "border-accent bg-wash" : "border-line hover:border-quiet"}`}
            onClick={() => onPick(address)}
          >
            {address} <span className="block font-sans text-quiet">{reason}</span>
          </button>
        </li>
      ))}
    </ul>
  );
};
