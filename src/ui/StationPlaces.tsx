import type { Site } from "../core/objects/site.ts";

/** The places of one station, as words above its screens; the one that is shown is the heading. */
export function StationPlaces<T extends string>(props: {
  site: Site;
  label: string;
  places: readonly (readonly [key: T, word: string])[];
  place: T;
}) {
  return (
    <nav aria-label={props.label} className="mb-3">
      <ul className="flex flex-wrap items-baseline gap-x-5">
        {props.places.map(([key, word]) => (
          <li key={key}>
            {key === props.place ? (
              <h1 className="text-lg font-semibold" aria-current="page">
                {word}
              </h1>
            ) : (
              <a className="text-quiet hover:text-ink" href={`/${props.site.key}/${key}`}>
                {word}
              </a>
            )}
          </li>
        ))}
      </ul>
    </nav>
  );
}
