import type { ListName } from "../../../core/rules/resolve/facts.ts";
import type { RuleMatch } from "../../../core/rules/rule.ts";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseMany } from "../../../ui/choose/choose.tsx";
import type { MultiChoiceProps } from "../../../ui/choose/MultiChoice.tsx";
import { asOptions } from "../../../ui/choose/options.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { useHostOptions } from "../../ledger/known-hosts.ts";
import { useCategories, usePageOptions } from "../../pages/known-pages.ts";
import { useNetworks } from "../../programs/use-programs.ts";
import * as say from "../words.ts";

/** Where links lead and stand, by name: domains, pages, programs, networks and categories. */
export function MatchLists(props: {
  site: Site;
  match: RuleMatch;
  errorOf: (name: ListName) => string | undefined;
  onChange: (name: ListName, values: string[]) => void;
}) {
  const { site, match, errorOf, onChange } = props;
  const hosts = useHostOptions(site);
  const pages = usePageOptions(site, "path");
  const categories = useCategories(site);
  const networks = useNetworks(site).data ?? [];
  const list = (name: ListName, label: string, hint: string, box: Partial<MultiChoiceProps>) => (
    <FieldRow label={label} hint={hint} error={errorOf(name)}>
      {(attributes) => (
        <ChooseMany
          isFree
          options={[]}
          {...box}
          attributes={attributes}
          values={match[name] ?? []}
          onChange={(values) => onChange(name, values)}
        />
      )}
    </FieldRow>
  );
  return (
    <div className="grid gap-3 grid-cols-[minmax(0,1fr)] md:grid-cols-2">
      {list("domains", say.domains, say.shopExampleOrShopExampleForIts, {
        options: hosts,
        between: /[\s,]/,
        mono: true,
      })}
      {list("pages", say.pages, say.hintOfPages, {
        options: pages.options,
        onType: pages.find,
        between: /[\s,]/,
        mono: true,
      })}
      {list("programs", say.programs2, say.asTheyStandInPrograms, {
        options: asOptions(site.partners.map(({ name }) => name)),
      })}
      {list("networks", say.networks, say.asTheyStandInPrograms, {
        options: asOptions([
          ...networks.map(({ name }) => name),
          ...site.partners.map(({ network }) => network),
        ]),
      })}
      {list("categories", say.categoriesOfThePage, say.asThePagesNameTheirs, { options: categories })}
    </div>
  );
}
