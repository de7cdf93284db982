import { useFormContext } from "react-hook-form";
import { STATUS_WORDS } from "../../core/routes/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { CheckField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { QUERY_WORDS } from "../routes/form/query-words.ts";
import { useBulk } from "../routes/table/use-bulk.ts";
import { SettingsGroup } from "./SettingsGroup.tsx";

const STATUSES = ([301, 302, 303, 307, 308] as const).map(
  (status) => [String(status), `${status} ${STATUS_WORDS[status]}`] as const,
);

/** What new routes are like that do not say otherwise; what there is stays as it is. */
export function RouteDefaultFields({ site }: { site: Site }) {
  const now = useFormContext<{
    shortPrefix: string;
    defaults: { shortStatus: string; redirectStatus: string; noindex: boolean; nofollow: boolean };
  }>().watch();
  const everywhere = useBulk(site, () => undefined);
  const hosts = site.hosts.filter(({ role }) => role !== "former");
  return (
    <>
      <SettingsGroup
        word="New short links"
        says={[
          now.shortPrefix ? `${now.shortPrefix} on the primary host` : "no directory",
          `${now.defaults.shortStatus} ${STATUS_WORDS[Number(now.defaults.shortStatus) as 301]}`,
          now.defaults.noindex ? "noindex" : "",
          now.defaults.nofollow ? "nofollow" : "",
        ]
          .filter(Boolean)
          .join(" · ")}
        names={["shortPrefix", "defaults.shortHost", "defaults.shortStatus", "defaults.query"]}
      >
        <div className="flex flex-wrap gap-4">
          {hosts.length > 1 ? (
            <SelectField
              name="defaults.shortHost"
              label="On the host"
              options={[
                ["", "the short one, where there is one"],
                ...hosts.map(({ name }) => [name, name] as const),
              ]}
            />
          ) : null}
          <TextField
            name="shortPrefix"
            label="Begin with"
            hint="On the primary host; short links that there are stay where they are."
            mono
            className="w-40"
          />
          <SelectField name="defaults.shortStatus" label="Answer with" options={STATUSES} />
          <SelectField
            name="defaults.query"
            label="What readers bring along"
            options={Object.entries(QUERY_WORDS)}
          />
        </div>
        <div className="flex flex-wrap gap-4">
          <CheckField name="defaults.noindex">search engines do not list them (noindex)</CheckField>
          <CheckField name="defaults.nofollow">robots do not follow them (nofollow)</CheckField>
          <button
            type="button"
            className="action py-0.5 text-sm"
            disabled={everywhere.isPending}
            onClick={() =>
              everywhere.mutate({
                filter: { kind: "short" },
                action: {
                  do: "robots",
                  noindex: now.defaults.noindex,
                  nofollow: now.defaults.nofollow,
                },
              })
            }
          >
            Say so for all short links that there are
          </button>
        </div>
      </SettingsGroup>
      <SettingsGroup
        word="New redirects"
        says={`${now.defaults.redirectStatus} ${STATUS_WORDS[Number(now.defaults.redirectStatus) as 301]}`}
        names={["defaults.redirectStatus"]}
      >
        <SelectField name="defaults.redirectStatus" label="Answer with" options={STATUSES} className="w-72" />
      </SettingsGroup>
    </>
  );
}
