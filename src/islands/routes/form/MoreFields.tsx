import { useFormContext, useWatch } from "react-hook-form";
import type { RouteCheck } from "../../../core/routes/route.ts";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { CheckField, SelectField, TextField } from "../../../ui/form/fields.tsx";
import type { RouteFormValues } from "./form-values.ts";
import { ChooseManyField } from "../../../ui/form/choose-fields.tsx";
import { usePageOptions } from "../../pages/known-pages.ts";
import { useRouteFacets } from "../use-route-list.ts";
import * as say from "../words.ts";

const CONTENT_WORDS = {
  nowhere: say.stayAsTheyAre,
  everywhere: say.becomeThisRouteOnEveryPage,
  pages: say.becomeThisRouteOnChosenPages,
} as const;

/** Other spellings, tags, what search engines are told, counting, and links in content to the raw destination. */
export function MoreFields({ site, kind, check }: { site: Site; kind: RouteKind; check?: RouteCheck }) {
  const { control, setValue, formState } = useFormContext<RouteFormValues>();
  const { aliases, match, inContent } = useWatch({ control }) as RouteFormValues;
  const known = useRouteFacets(site).data?.tags ?? [];
  const { errors, dirtyFields } = formState;
  const typed = aliases.split(/\s+/);
  const offered = (check?.mistypings ?? []).filter(({ address }) => !typed.includes(address));
  const aliasFault =
    errors.aliases?.message ?? check?.errors.find(({ path }) => path.startsWith("aliases"))?.message;
  const { aliases: a, tags, counted, noindex, nofollow, inContent: c } = dirtyFields;
  return (
    <details
      className="text-sm"
      open={Boolean(a || tags || counted || noindex || nofollow || c || aliasFault)}
    >
      <summary className="text-quiet">{say.otherSpellingsTagsCountingSearch}</summary>
      <div className="mt-2 grid gap-3">
        {match === "exact" ? (
          <TextField
            name="aliases"
            label={say.otherSpellingsPeopleType}
            mono
            error={aliasFault}
            hint={say.pathsSeparatedBySpaces}
          />
        ) : null}
        {offered.length > 0 ? (
          <ul aria-label={say.spellingsPeopleMayType} className="flex flex-wrap gap-1.5">
            {offered.map(({ address, reason }) => (
              <li key={address}>
                <button
                  type="button"
                  className="action py-0.5 font-mono text-xs"
                  title={reason}
                  onClick={() =>
                    setValue("aliases", [...typed.filter(Boolean), address].join(" "), { shouldDirty: true })
                  }
                >
                  + {address}
                </button>
              </li>
            ))}
          </ul>
        ) : null}
        <ChooseManyField
          name="tags"
          label={say.tags}
          isFree
          options={known.map(({ tag, routes }) => ({ value: tag, word: tag, note: String(routes) }))}
        />
        <fieldset className="grid gap-1">
          <legend className="mb-0.5 font-medium">{say.searchEnginesAreTold}</legend>
          <CheckField name="noindex">{say.notToKeepThisAddressNoindex}</CheckField>
          <CheckField name="nofollow">{say.notToFollowItNofollow}</CheckField>
        </fieldset>
        <CheckField name="counted">{say.countItsClicks}</CheckField>
        {kind === "gone" || match !== "exact" ? null : (
          <SelectField
            name="inContent"
            label={say.linksInPagesToTheRawDestination}
            error={errors.contentPages?.message}
            hint={inContent === "nowhere" ? undefined : say.onlyWhatIsDeliveredTheWrittenPages}
            options={Object.entries(CONTENT_WORDS)}
          />
        )}
        {inContent === "pages" ? <ChosenPages site={site} /> : null}
      </div>
    </details>
  );
}

function ChosenPages({ site }: { site: Site }) {
  const chosen = useWatch<RouteFormValues, "contentPages">({ name: "contentPages" });
  const pages = usePageOptions(site, "id", chosen);
  return (
    <ChooseManyField
      name="contentPages"
      label={say.onThesePages}
      options={pages.options}
      onType={pages.find}
    />
  );
}
