import type { Rule } from "../../core/rules/rule.ts";
import type { Site } from "../../core/sites/site.ts";
import { ruleSentence } from "../../core/rules/sentence.ts";
import { startingSets } from "../../core/rules/sets/starting-sets.ts";
import * as say from "./words.ts";

/** Sets to begin with, each explained, each rule a sentence; choosing one only puts it on the bench. */
export function StartingSets({ site, onChoose }: { site: Site; onChoose: (rules: readonly Rule[]) => void }) {
  return (
    <section aria-label={say.startingSets} className="grid gap-3">
      <p>
        {say.beginWithWhatFitsYourSiteThen}
        {site.partners.length === 0 ? (
          <span className="text-quiet">
            {" "}
            {say.nameYour}{" "}
            <a className="underline" href={`/${site.key}/programs`}>
              {say.programs}
            </a>{" "}
            {say.firstAndTheirLinksAreMarkedAs}
          </span>
        ) : null}
      </p>
      {startingSets(site.partners).map(({ key, name, about, rules }) => (
        <section key={key} className="rounded border border-line bg-sheet p-3">
          <div className="flex items-baseline gap-3">
            <h2 className="grow font-semibold">{name}</h2>
            <button data-needs="editor" className="action" onClick={() => onChoose(rules)}>
              {say.beginWithThis}
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
