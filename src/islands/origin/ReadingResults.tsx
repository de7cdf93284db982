import type { Origin, ReadingResults as Results } from "../../core/origin/origin.ts";
import type { Site } from "../../core/sites/site.ts";
import { TREATMENTS } from "../../core/rules/treatment.ts";
import { count } from "../../ui/format/format.ts";
import { TREATMENT_COLOR, TREATMENT_WORD } from "../../ui/links/link-words.ts";
import { counted } from "../../ui/format/counted.ts";
import { StartingSetTried } from "./StartingSetTried.tsx";
import * as say from "./words.ts";

/** What reading has come to so far; every figure leads to what it counts. */
export function ReadingResults({
  site,
  results,
  traps,
  isReading,
}: {
  isReading: boolean;
  site: Site;
  results: Results;
  traps: Origin["traps"];
}) {
  const { links, pages, written, changed, dead, redirected, programs, untracked, couldBeShort, repeated } =
    results;
  const { newTab, ...treated } = written;
  const outside = TREATMENTS.reduce((sum, one) => sum + treated[one], 0);
  const ledger = (query: string): string => `/${site.key}/ledger?${query}`;
  if (pages === 0) return null;
  return (
    <section
      aria-label={say.whatWasFound}
      aria-live="off"
      className="grid min-w-0 gap-3 grid-cols-[minmax(0,1fr)]"
    >
      <h3 className="font-semibold">{say.whatWasFound}</h3>
      <p>
        <a className="font-semibold hover:underline" href={ledger("")}>
          {say.linksOn(counted(links, ...say.ofLinks), counted(pages, ...say.ofPages))}
        </a>
        ; {say.outsideLinks(count(outside))}
        {newTab > 0 ? `, ${say.newTabOf(count(newTab))}` : ""}.
      </p>
      {outside > 0 ? (
        <div className="grid gap-1">
          <p className="text-sm text-quiet">{say.asTheyAreWritten}</p>
          <span className="flex h-3 overflow-hidden rounded-sm" aria-hidden>
            {TREATMENTS.map((one) => (
              <span
                key={one}
                style={{
                  width: `${(treated[one] / outside) * 100}%`,
                  background: `var(${TREATMENT_COLOR[one]})`,
                }}
              />
            ))}
          </span>
          <ul className="flex flex-wrap gap-x-4 text-sm">
            {TREATMENTS.map((one) => (
              <li key={one}>
                <span
                  aria-hidden
                  className="mr-1 inline-block size-2.5 rounded-sm"
                  style={{ background: `var(${TREATMENT_COLOR[one]})` }}
                />
                {TREATMENT_WORD[one]} {count(treated[one])}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <StartingSetTried site={site} isReading={isReading} />
      <ul className="grid gap-1">
        <Figure
          number={changed}
          word={say.rulesWouldChange(counted(changed, ...say.ofLinks))}
          href={`/${site.key}/rules`}
        />
        <Figure
          number={dead}
          word={say.deadInside(counted(dead, ...say.ofInsideLinks))}
          href={ledger("kind=broken")}
          isBad
        />
        <Figure
          number={redirected}
          word={say.redirectedInside(counted(redirected, ...say.ofInsideLinks))}
          href={ledger("finding=redirected")}
        />
        <Figure
          number={untracked}
          word={say.untrackedOnes(counted(untracked, ...say.ofLinks))}
          href={ledger("finding=untracked")}
        />
        <Figure
          number={couldBeShort}
          word={say.couldBeShort(counted(couldBeShort, ...say.ofAddresses))}
          href={ledger("short=0&reach=external")}
        />
      </ul>
      <div>
        <h4 className="font-semibold">{say.programsRecognised}</h4>
        {programs.length === 0 ? (
          <p className="text-sm text-quiet">
            {say.noProgramYet}{" "}
            <a className="text-accent underline" href={`/${site.key}/programs`}>
              {say.findPrograms}
            </a>
          </p>
        ) : (
          <ul className="flex flex-wrap gap-x-5 text-sm">
            {programs.map(({ program, links: of }) => (
              <li key={program}>
                <a
                  className="inline-block py-1 hover:underline"
                  href={ledger(`program=${encodeURIComponent(program)}`)}
                >
                  {program}
                </a>{" "}
                <span className="text-quiet">{count(of)}</span>
              </li>
            ))}
          </ul>
        )}
      </div>
      {repeated.length > 0 ? (
        <div>
          <h4 className="font-semibold">{say.standsOnMany}</h4>
          <ul className="grid text-sm grid-cols-[minmax(0,1fr)]">
            {repeated.map(({ id, title, onPages, links: of }) => (
              <li key={id} className="flex gap-x-3">
                <a className="min-w-0 truncate py-1 hover:underline" href={ledger(`page=${id}`)}>
                  {title}
                </a>
                <span className="shrink-0 py-1 text-quiet">
                  {counted(of, ...say.ofLinks)}, {say.onPages(counted(onPages, ...say.ofPages))}
                </span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {traps.length > 0 ? (
        <div>
          <h4 className="font-semibold">{say.trapsNoticed}</h4>
          <ul className="grid gap-0.5 text-sm">
            {traps.map(({ kind, shape, sample, left }) => (
              <li key={kind + shape}>
                {say.trapWords[kind]},{" "}
                <span className="font-mono wrap-anywhere" title={sample}>
                  {shape}
                </span>{" "}
                <span className="text-quiet">{say.leftOutOf(counted(left, ...say.ofAddresses))}</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </section>
  );
}

function Figure({
  number,
  word,
  href,
  isBad = false,
}: {
  number: number;
  word: string;
  href: string;
  isBad?: boolean;
}) {
  if (number === 0) return null;
  return (
    <li>
      <a
        className={`inline-block underline decoration-line underline-offset-4 hover:decoration-current ${isBad ? "text-bad" : ""}`}
        href={href}
      >
        {word}
      </a>
    </li>
  );
}
