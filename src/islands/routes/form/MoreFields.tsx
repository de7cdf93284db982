import { useFormContext, useWatch } from "react-hook-form";
import type { RouteCheck } from "../../../core/routes/route.ts";
import type { RouteKind } from "../../../core/routes/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { CheckField, SelectField, TextField } from "../../../ui/form/fields.tsx";
import type { RouteFormValues } from "./form-values.ts";
import { ChooseManyField } from "../../../ui/form/choose-fields.tsx";
import { usePageOptions } from "../../pages/known-pages.ts";
import { useRouteFacets } from "../use-route-list.ts";

const CONTENT_WORDS = {
  nowhere: "stay as they are",
  everywhere: "become this route, on every page",
  pages: "become this route, on chosen pages",
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
      <summary className="text-quiet">
        Other spellings, tags, counting, search engines, links in pages
      </summary>
      <div className="mt-2 grid gap-3">
        {match === "exact" ? (
          <TextField
            name="aliases"
            label="Other spellings people type"
            mono
            error={aliasFault}
            hint="Paths, separated by spaces"
          />
        ) : null}
        {offered.length > 0 ? (
          <ul aria-label="Spellings people may type" className="flex flex-wrap gap-1.5">
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
          label="Tags"
          isFree
          options={known.map(({ tag, routes }) => ({ value: tag, word: tag, note: String(routes) }))}
        />
        <fieldset className="grid gap-1">
          <legend className="mb-0.5 font-medium">Search engines are told</legend>
          <CheckField name="noindex">not to keep this address (noindex)</CheckField>
          <CheckField name="nofollow">not to follow it (nofollow)</CheckField>
        </fieldset>
        <CheckField name="counted">Count its clicks</CheckField>
        {kind === "gone" || match !== "exact" ? null : (
          <SelectField
            name="inContent"
            label="Links in pages to the raw destination"
            error={errors.contentPages?.message}
            hint={
              inContent === "nowhere"
                ? undefined
                : "Only what is delivered; the written pages stay as they are."
            }
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
    <ChooseManyField name="contentPages" label="On these pages" options={pages.options} onType={pages.find} />
  );
}
