import { useQuery } from "@tanstack/react-query";
import { useFormContext, useWatch } from "react-hook-form";
import type { RouteCheck, RouteKind } from "../../../core/routes/route.ts";
import type { Site } from "../../../core/sites/site.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import type { RouteFormValues } from "./form-values.ts";
import { asking } from "../../../ui/client/queries.ts";

const CONTENT_WORDS = {
  nowhere: "stay as they are",
  everywhere: "become this route, on every page",
  pages: "become this route, on chosen pages",
} as const;

/** Other spellings, tags, what search engines are told, counting, and links in content to the raw destination. */
export function MoreFields({ site, kind, check }: { site: Site; kind: RouteKind; check?: RouteCheck }) {
  const { register, control, setValue, formState } = useFormContext<RouteFormValues>();
  const { aliases, match, inContent } = useWatch({ control }) as RouteFormValues;
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
          <FieldRow label="Other spellings people type" error={aliasFault} hint="Paths, separated by spaces">
            {(attributes) => (
              <input {...attributes} {...register("aliases")} className="field font-mono text-sm" />
            )}
          </FieldRow>
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
        <FieldRow label="Tags" error={errors.tags?.message} hint="Separated by commas">
          {(attributes) => <input {...attributes} {...register("tags")} className="field" />}
        </FieldRow>
        <fieldset className="grid gap-1">
          <legend className="mb-0.5 font-medium">Search engines are told</legend>
          <label className="flex items-center gap-2">
            <input type="checkbox" {...register("noindex")} /> not to keep this address (noindex)
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" {...register("nofollow")} /> not to follow it (nofollow)
          </label>
        </fieldset>
        <label className="flex items-center gap-2">
          <input type="checkbox" {...register("counted")} /> Count its clicks
        </label>
        {kind === "gone" || match !== "exact" ? null : (
          <FieldRow
            label="Links in pages to the raw destination"
            error={errors.inContent?.message ?? errors.contentPages?.message}
            hint={
              inContent === "nowhere"
                ? undefined
                : "Only what is delivered; the written pages stay as they are."
            }
          >
            {(attributes) => (
              <select {...attributes} {...register("inContent")} className="field">
                {Object.entries(CONTENT_WORDS).map(([value, word]) => (
                  <option key={value} value={value}>
                    {word}
                  </option>
                ))}
              </select>
            )}
          </FieldRow>
        )}
        {inContent === "pages" ? <ChosenPages site={site} /> : null}
      </div>
    </details>
  );
}

function ChosenPages({ site }: { site: Site }) {
  const { register } = useFormContext<RouteFormValues>();
  const pages = useQuery(
    asking("GET /sites/:site/pages", { site: site.id, query: { limit: 500, sort: "title" } }),
  );
  return (
    <fieldset className="max-h-40 overflow-auto rounded border border-line p-2">
      <legend className="px-1 font-medium">On these pages</legend>
      {pages.data?.items.map((page) => (
        <label key={page.id} className="flex items-center gap-2">
          <input type="checkbox" value={page.id} {...register("contentPages")} /> {page.title}
        </label>
      ))}
    </fieldset>
  );
}
