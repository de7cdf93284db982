import type { Site } from "../../core/sites/site.ts";
import { SECTIONS, sectionOf, type SectionTab } from "./sections.ts";

/** The screens of one section, as words above each of them; the one that is shown is the heading. */
export function SectionTabs({ site, tab }: { site: Site; tab: SectionTab }) {
  const { label, tabs } = SECTIONS[sectionOf(tab)];
  return (
    <nav aria-label={label} className="mb-3">
      <ul className="flex flex-wrap items-baseline gap-x-5">
        {tabs
          .filter(([path]) => isThere(path, site))
          .map(([path, word]) => (
            <li key={path}>
              {path === tab ? (
                <h1 className="text-lg font-semibold" aria-current="page">
                  {word}
                </h1>
              ) : (
                <a className="inline-block py-0.5 text-quiet hover:text-ink" href={`/${site.key}/${path}`}>
                  {word}
                </a>
              )}
            </li>
          ))}
      </ul>
    </nav>
  );
}

// What is about pages elsewhere is of a site that has some.
function isThere(path: SectionTab, site: Site): boolean {
  return !path.startsWith("origin/") || site.origin !== null;
}
