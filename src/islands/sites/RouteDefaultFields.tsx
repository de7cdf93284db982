import { useFormContext } from "react-hook-form";
import { STATUS_WORDS } from "../../core/routes/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { CheckField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { QUERY_WORDS } from "../routes/form/query-words.ts";
import { useBulk } from "../routes/table/use-bulk.ts";
import { SettingsGroup } from "./SettingsGroup.tsx";
import * as say from "./words.ts";

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
        word={say.newShortLinks}
        says={[
          now.shortPrefix ? say.onThePrimaryHost(now.shortPrefix) : say.noDirectory,
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
              label={say.onTheHost}
              options={[
                ["", say.theShortOneWhereThereIsOne],
                ...hosts.map(({ name }) => [name, name] as const),
              ]}
            />
          ) : null}
          <TextField
            name="shortPrefix"
            label={say.beginWith}
            hint={say.onThePrimaryHostShortLinksThat}
            mono
            className="w-40"
          />
          <SelectField name="defaults.shortStatus" label={say.answerWith} options={STATUSES} />
          <SelectField
            name="defaults.query"
            label={say.whatReadersBringAlong}
            options={Object.entries(QUERY_WORDS)}
          />
        </div>
        <div className="flex flex-wrap gap-4">
          <CheckField name="defaults.noindex">{say.searchEnginesDoNotListThemNoindex}</CheckField>
          <CheckField name="defaults.nofollow">{say.robotsDoNotFollowThemNofollow}</CheckField>
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
            {say.saySoForAllShortLinksThat}
          </button>
        </div>
      </SettingsGroup>
      <SettingsGroup
        word={say.newRedirects}
        says={`${now.defaults.redirectStatus} ${STATUS_WORDS[Number(now.defaults.redirectStatus) as 301]}`}
        names={["defaults.redirectStatus"]}
      >
        <SelectField
          name="defaults.redirectStatus"
          label={say.answerWith}
          options={STATUSES}
          className="w-72"
        />
      </SettingsGroup>
    </>
  );
}
