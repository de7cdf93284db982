import type { Rule } from "../../core/rules/rule.ts";
import type { Site } from "../../core/sites/site.ts";
import { ruleSentence } from "../../core/rules/sentence.ts";
import { startingSets } from "../../core/rules/sets/starting-sets.ts";

/** Sets to begin with, each explained, each rule a sentence; choosing one only puts it on the bench. */
export function StartingSets({ site, onChoose }: { site: Site; onChoose: (rules: readonly Rule[]) => void }) {
  return (
    <section aria-label="Starting sets" className="grid gap-3">
      <p>
        Begin with what fits your site, then change it. Nothing takes effect before you apply it.
        {site.partners.length === 0 ? (
          <span className="text-quiet">
            {" "}
            Name your{" "}
            <a className="underline" href={`/${site.key}/programs`}>
              programs
            </a>{" "}
            first, and their links are marked as paid.
          </span>
        ) : null}
      </p>
      {startingSets(site.partners).map(({ key, name, about, rules }) => (
        <section key={key} className="rounded border border-line bg-sheet p-3">
          <div className="flex items-baseline gap-3">
            <h2 className="grow font-semibold">{name}</h2>
            <button data-needs="editor" className="action" onClick={() => onChoose(rules)}>
              Begin with this
            </button>
          </div>
          <p className="mb-1.5 text-sm text-quiet">{about}</p>
          <ol className="list-decimal pl-5 text-sm">
            {rules.map((rule) => (
              <li key={rule.name}>{ruleSentence(rule)}</li>
            ))}
          </ol>
        </section>
      ))}
    </section>
  );
}
