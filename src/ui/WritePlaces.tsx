import type { Site } from "../core/objects/site.ts";

const PLACES = [
  ["write", "Pages"],
  ["blocks", "Shared blocks"],
  ["navigation", "Navigation"],
  ["files", "Files"],
  ["transfer", "In and out"],
] as const;

/** What is written besides pages, as words above each list. */
export function WritePlaces({ site, place }: { site: Site; place: (typeof PLACES)[number][0] }) {
  return (
    <nav aria-label="What is written" className="mb-3">
      <ul className="flex flex-wrap items-baseline gap-x-5">
        {PLACES.map(([key, word]) => (
          <li key={key}>
            {key === place ? (
              <h1 className="text-lg font-semibold" aria-current="page">
                {word}
              </h1>
            ) : (
              <a className="text-quiet hover:text-ink" href={`/${site.key}/${key}`}>
                {word}
              </a>
            )}
          </li>
        ))}
      </ul>
    </nav>
  );
}
