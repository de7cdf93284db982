import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { SiteHost } from "../../../core/sites/host.ts";
import { HOST_ROLES, type HostRole } from "../../../core/sites/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { asking, refresh } from "../../../ui/client/queries.ts";
import { SelectField, TextField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { count } from "../../../ui/format/format.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { DataTable, type Column } from "../../../ui/table/DataTable.tsx";
import { OpenHost } from "./OpenHost.tsx";

const ANSWERS: Readonly<Record<Exclude<HostRole, "former">, string>> = {
  primary: "pages and routes; pages say that they stand here",
  short: "short links only",
  other: "pages and routes",
};

/** The names under which readers find a site: what each is for, and what hangs on it. */
export function Hosts({ site }: { site: Site }) {
  const hosts = useQuery(asking("GET /sites/:site/hosts", { site: site.id }));
  const [open, setOpen] = useState<string>();
  const columns: Column<SiteHost>[] = [
    { key: "url", word: "Host", head: true, cell: ({ url }) => <AddressText address={url} /> },
    { key: "role", word: "Kind", cell: ({ role }) => role },
    {
      key: "answers",
      word: "Answers",
      className: "max-sm:hidden",
      cellClass: "text-quiet",
      cell: ({ role, leadsTo }) => (role === "former" ? `leads to ${leadsTo ?? ""}` : ANSWERS[role]),
    },
    {
      key: "routes",
      word: "Routes of its own",
      className: "max-sm:hidden",
      number: true,
      cell: ({ routes }) => count(routes),
    },
    {
      key: "links",
      word: "Links that name it",
      className: "max-sm:hidden",
      number: true,
      cell: ({ links }) => count(links),
    },
    {
      key: "action",
      word: <span className="sr-only">What can be done</span>,
      className: "text-right",
      cell: ({ name }) => (
        <button
          className="action action-plain"
          aria-expanded={open === name}
          onClick={() => setOpen(open === name ? undefined : name)}
        >
          Change<span className="sr-only"> {name}</span>
        </button>
      ),
    },
  ];
  const items = hosts.data?.items ?? [];
  const opened = items.find(({ name }) => name === open);
  return (
    <>
      {hosts.isError ? <p className="text-bad">{messageOf(hosts.error)}</p> : null}
      <DataTable
        label={`Hosts of ${site.name}`}
        rows={items}
        columns={columns}
        keyOf={({ name }) => name}
        rowClass={({ name }) => (name === open ? "bg-wash" : "")}
      />
      {opened ? (
        <OpenHost
          key={opened.name}
          site={site}
          host={opened}
          onChanged={(name) => setOpen(name)}
          onClose={() => setOpen(undefined)}
        />
      ) : (
        <NewHost site={site} />
      )}
    </>
  );
}

function NewHost({ site }: { site: Site }) {
  const form = useSavedForm({
    values: { name: "", role: "other" as (typeof HOST_ROLES)[number] },
    save: (body) => api("POST /sites/:site/hosts", { site: site.id, body }),
    onSaved: (_, { reset }) => {
      reset();
      void refresh("GET /sites/:site/hosts", "GET /sites");
    },
  });
  return (
    <Form of={form} needs="owner" label="New host" className="mt-3 flex flex-wrap items-start gap-3">
      <TextField
        name="name"
        label="Another host"
        placeholder="www.lowlantern.example"
        mono
        className="w-72"
      />
      <SelectField name="role" label="Kind" options={HOST_ROLES.map((role) => [role, role])} />
      <SaveButton of={form} isPlain className="mt-6">
        Add it
      </SaveButton>
    </Form>
  );
}
