import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { CheckField, RadioField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import * as say from "./words.ts";

const BEGINNINGS = [
  { value: "pages", word: say.empty, what: say.youWriteItsPagesAndMakeIts },
  {
    value: "pages/transfer",
    word: say.withImportedPages,
    what: say.htmlOrMarkdownFilesOrAZip,
  },
  {
    value: "routes/transfer",
    word: say.withImportedRoutes,
    what: say.aTableOfShortLinksAndRedirects,
  },
];

/** Makes a site: its name, its hosts, whose settings it takes over, and what comes first. */
export function SiteForm({ sites, title }: { sites: readonly Site[]; title: string }) {
  const form = useSavedForm({
    values: { name: "", host: "", short: "", copyOf: "", copyRules: true, begins: "pages" },
    save: ({ name, host, short, copyOf, copyRules }) =>
      api("POST /sites", {
        body: {
          key: keyOf(name),
          name,
          hosts: [
            { name: host, role: "primary" as const },
            ...(short.trim() ? [{ name: short, role: "short" as const }] : []),
          ],
          ...(copyOf ? { copyOf, copyRules } : {}),
        },
      }),
    onSaved: (site) => location.assign(`/${site.key}/${form.getValues("begins")}`),
    fieldOf: (path) =>
      path.startsWith("hosts.1")
        ? "short"
        : path.startsWith("hosts")
          ? "host"
          : path === "copyOf"
            ? path
            : "name",
  });
  return (
    <Form
      of={form}
      label={title}
      actions={
        <SaveButton of={form} className="justify-self-start">
          {say.makeTheSite}
        </SaveButton>
      }
    >
      <h1 className="text-xl font-semibold">{title}</h1>
      <p className="text-quiet">{say.itsPagesShortLinksAndRedirectsAre}</p>
      <TextField name="name" label={say.name2} autoFocus />
      <TextField name="host" label={say.host} hint={say.suchAsGardenExample} mono />
      <TextField name="short" label={say.hostForShortLinksIfYouHave} mono />
      {sites.length > 0 ? (
        <>
          <SelectField
            name="copyOf"
            label={say.settings}
            options={[["", say.asUsual], ...sites.map(({ key, name }) => [key, say.thoseOf(name)] as const)]}
          />
          {form.watch("copyOf") ? <CheckField name="copyRules">{say.itsRulesToo}</CheckField> : null}
        </>
      ) : null}
      <RadioField name="begins" legend={say.itBegins} options={BEGINNINGS} />
    </Form>
  );
}

/** The key of a site that is called so: lower-case letters, digits and hyphens. */
function keyOf(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60);
}
