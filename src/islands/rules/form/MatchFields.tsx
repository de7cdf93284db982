import type { RuleMatch } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { ListField } from "./ListField.tsx";
import { useCategories } from "./use-categories.ts";

/** What a rule looks at in a link, each field left empty unless it is to count. */
export function MatchFields(props: {
  title: string;
  site: Site;
  match: RuleMatch;
  errors: ReadonlyMap<string, string>;
  path: "match" | "except";
  everything: string;
  onChange: (match: RuleMatch) => void;
}) {
  const { site, match, errors, path, onChange } = props;
  const categories = useCategories(site);
  const set = <K extends keyof RuleMatch>(name: K, value: RuleMatch[K]): void => {
    const { [name]: _, ...rest } = match;
    const isNothing = value === undefined || (Array.isArray(value) && value.length === 0);
    onChange(isNothing ? rest : { ...rest, [name]: value });
  };
  const list = (
    name: "domains" | "programs" | "networks" | "categories" | "pages",
    label: string,
    hint: string,
    known: readonly string[] = [],
  ) => (
    <ListField
      label={label}
      hint={hint}
      items={match[name] ?? []}
      known={known}
      error={errorBelow(errors, `${path}.${name}`)}
      onChange={(items) => set(name, items)}
    />
  );
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-medium">{props.title}</legend>
      <div className="flex flex-wrap gap-3">
        <Choice
          label={`${props.title}: where they lead`}
          value={match.destination ?? "unsaid"}
          options={[
            { value: "unsaid", word: props.everything },
            { value: "external", word: "outside" },
            { value: "internal", word: "inside the site" },
          ]}
          onChange={(value) => set("destination", value === "unsaid" ? undefined : value)}
        />
        <Choice
          label={`${props.title}: on what they stand`}
          value={match.anchor ?? "unsaid"}
          options={[
            { value: "unsaid", word: path === "match" ? "words and pictures" : "neither" },
            { value: "text", word: "words" },
            { value: "image", word: "pictures" },
          ]}
          onChange={(value) => set("anchor", value === "unsaid" ? undefined : value)}
        />
      </div>
      <div className="grid gap-3 md:grid-cols-2">
        {list("domains", "To the domains", "shop.example, or *.shop.example for its subdomains")}
        {list("pages", "On the pages", "/reviews/first, or /reviews/* for all below")}
        {list(
          "programs",
          "Of the programs",
          "as they stand in Programs",
          site.partners.map(({ name }) => name),
        )}
        {list("networks", "Of the networks", "as they stand in Programs", [
          ...new Set(site.partners.map(({ network }) => network).filter(Boolean)),
        ])}
        {list("categories", "On pages of the categories", "as the pages name theirs", categories)}
      </div>
    </fieldset>
  );
}

// The message stands at the entry it is about; the field shows the first.
function errorBelow(errors: ReadonlyMap<string, string>, path: string): string | undefined {
  for (const [at, message] of errors) if (at === path || at.startsWith(`${path}.`)) return message;
  return undefined;
}
