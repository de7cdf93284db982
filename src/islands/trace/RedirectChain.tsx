import type { Site } from "../../core/sites/site.ts";
import type { Trace, TraceHop } from "../../core/trace/trace.ts";
import { AddressText } from "../../ui/links/AddressText.tsx";
import { isGood, VERDICT_WORDS } from "./verdict-words.ts";
import * as say from "./words.ts";

const BY_WORDS = {
  route: say.ourRoute,
  page: say.ourPage,
  file: say.ourFile,
  spelling: say.anotherSpelling,
  miss: say.nothingOfOurs,
  elsewhere: "elsewhere",
  outside: "outside",
} as const;

/** One way: the verdict, then every hop, then what arrived. */
export function RedirectChain({ site, trace }: { site: Site; trace: Trace }) {
  const { verdict, note, hops, tracking } = trace;
  const tone = isGood(verdict)
    ? "text-good"
    : verdict === "chain" || verdict === "lost-tracking"
      ? "text-warn"
      : "text-bad";
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-2">
        <span className={`font-semibold ${tone}`}>{VERDICT_WORDS[verdict]}</span>
        <span className="font-mono text-sm wrap-anywhere">{trace.address}</span>
        <span className="text-sm text-quiet">{note}</span>
      </p>
      <ol className="mt-1 border-l-2 border-line pl-3 text-sm">
        {hops.map((hop, index) => (
          <li key={index} className="flex flex-wrap items-baseline gap-x-2 py-0.5">
            <span className="w-10 font-mono">{hop.status ?? "—"}</span>
            <AddressText address={hop.address} most={90} />
            <HopBy site={site} hop={hop} />
            {hop.ms === undefined ? null : <span className="text-quiet">{say.ms(hop.ms)}</span>}
          </li>
        ))}
      </ol>
      {tracking.length > 0 ? (
        <ul aria-label={say.whatArrived} className="mt-1 flex flex-wrap gap-x-3 text-sm">
          {tracking.map(({ name, value, arrived, lastSeen }) => (
            <li key={name + value} className={arrived ? "text-good" : "text-bad"}>
              {name === value ? value : `${name}=${value}`}{" "}
              {arrived ? say.arrived : say.wasLostAfter(hostOf(lastSeen))}
            </li>
          ))}
        </ul>
      ) : null}
    </>
  );
}

function HopBy({ site, hop }: { site: Site; hop: TraceHop }) {
  const word = BY_WORDS[hop.by];
  return (
    <span className="text-quiet">
      {hop.by === "route" && hop.id ? (
        <a className="text-accent underline" href={`/${site.key}/routes?open=${hop.id}`}>
          {word}
        </a>
      ) : hop.by === "page" && hop.id ? (
        <a className="text-accent underline" href={`/${site.key}/pages/${hop.id}`}>
          {word}
        </a>
      ) : (
        word
      )}
      {hop.note ? `: ${hop.note}` : ""}
    </span>
  );
}

function hostOf(address: string | undefined): string {
  return address && URL.canParse(address) ? new URL(address).host : say.theFirstHop;
}
