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
import * as say from "../words.ts";

const ANSWERS: Readonly<Record<Exclude<HostRole, "former">, string>> = {
  primary: say.pagesAndRoutesPagesSayThatThey,
  short: say.shortLinksOnly,
  other: say.pagesAndRoutes,
};

/** The names under which readers find a site: what each is for, and what hangs on it. */
export function Hosts({ site }: { site: Site }) {
  const hosts = useQuery(asking("GET /sites/:site/hosts", { site: site.id }));
  const [open, setOpen] = useState<string>();
  const columns: Column<SiteHost>[] = [
    { key: "url", word: say.host, head: true, cell: ({ url }) => <AddressText address={url} /> },
    { key: "role", word: say.kind, cell: ({ role }) => role },
    {
      key: "answers",
      word: say.answers,
      className: "max-sm:hidden",
      cellClass: "text-quiet",
      cell: ({ role, leadsTo }) => (role === "former" ? say.leadsToHost(leadsTo ?? "") : ANSWERS[role]),
    },
    {
      key: "routes",
      word: say.routesOfItsOwn,
      className: "max-sm:hidden",
      number: true,
      cell: ({ routes }) => count(routes),
    },
    {
      key: "links",
      word: say.linksThatNameIt,
      className: "max-sm:hidden",
      number: true,
      cell: ({ links }) => count(links),
    },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: ({ name }) => (
        <button
          className="action action-plain"
          aria-expanded={open === name}
          onClick={() => setOpen(open === name ? undefined : name)}
        >
          {say.change}
          <span className="sr-only"> {name}</span>
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
        label={say.hostsOf(site.name)}
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
    <Form of={form} needs="owner" label={say.newHost} className="mt-3 flex flex-wrap items-start gap-3">
      <TextField
        name="name"
        label={say.anotherHost}
        placeholder={say.wwwLowlanternExample}
        mono
        className="w-72"
      />
      <SelectField name="role" label={say.kind} options={HOST_ROLES.map((role) => [role, role])} />
      <SaveButton of={form} isPlain className="mt-6">
        {say.addIt}
      </SaveButton>
    </Form>
  );
}
