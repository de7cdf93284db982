import type { Site } from "../../core/sites/site.ts";
import { api } from "../../ui/client/api.ts";
import { CheckField, RadioField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";

const BEGINNINGS = [
  { value: "pages", word: "empty", what: "You write its pages and make its links here." },
  {
    value: "pages/transfer",
    word: "with pages that are brought in",
    what: "HTML or Markdown files, or a zip of them.",
  },
  {
    value: "routes/transfer",
    word: "with routes that are brought in",
    what: "A table of short links and redirects, as CSV or JSON.",
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
          Make the site
        </SaveButton>
      }
    >
      <h1 className="text-xl font-semibold">{title}</h1>
      <p className="text-quiet">Its pages, short links and redirects are answered under these hosts.</p>
      <TextField name="name" label="Name" autoFocus />
      <TextField name="host" label="Host" hint="Such as garden.example" mono />
      <TextField name="short" label="Host for short links, if you have one" mono />
      {sites.length > 0 ? (
        <>
          <SelectField
            name="copyOf"
            label="Settings"
            options={[["", "as usual"], ...sites.map(({ key, name }) => [key, `those of ${name}`] as const)]}
          />
          {form.watch("copyOf") ? <CheckField name="copyRules">its rules, too</CheckField> : null}
        </>
      ) : null}
      <RadioField name="begins" legend="It begins" options={BEGINNINGS} />
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
