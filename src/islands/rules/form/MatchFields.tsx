import type { ListName } from "../../../core/rules/resolve/facts.ts";
import type { RuleMatch } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { MatchLists } from "./MatchLists.tsx";
import * as say from "../words.ts";

/** What a rule looks at in a link, each field left empty unless it is to count. */
export function MatchFields(props: {
  title: string;
  site: Site;
  match: RuleMatch;
  /** What is wrong with one of its lists. */
  errorOf: (name: ListName) => string | undefined;
  path: "match" | "except";
  everything: string;
  onChange: (match: RuleMatch) => void;
}) {
  const { site, match, path, onChange } = props;
  const set = <K extends keyof RuleMatch>(name: K, value: RuleMatch[K]): void => {
    const { [name]: _, ...rest } = match;
    const isNothing = value === undefined || (Array.isArray(value) && value.length === 0);
    onChange(isNothing ? rest : { ...rest, [name]: value });
  };
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-medium">{props.title}</legend>
      <div className="flex flex-wrap gap-3">
        <Choice
          label={say.whereTheyLead(props.title)}
          value={match.destination ?? "unsaid"}
          options={[
            { value: "unsaid", word: props.everything },
            { value: "external", word: say.outside },
            { value: "internal", word: say.insideTheSite },
          ]}
          onChange={(value) => set("destination", value === "unsaid" ? undefined : value)}
        />
        <Choice
          label={say.onWhatTheyStand(props.title)}
          value={match.anchor ?? "unsaid"}
          options={[
            { value: "unsaid", word: path === "match" ? say.wordsAndPictures : say.neither },
            { value: "text", word: say.words },
            { value: "image", word: say.pictures },
          ]}
          onChange={(value) => set("anchor", value === "unsaid" ? undefined : value)}
        />
      </div>
      <MatchLists site={site} match={match} errorOf={props.errorOf} onChange={set} />
    </fieldset>
  );
}
