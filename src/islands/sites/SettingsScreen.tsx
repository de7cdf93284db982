import { useMutation, useQuery } from "@tanstack/react-query";
import { Copy } from "lucide-react";
import { useForm } from "react-hook-form";
import { useState } from "react";
import { ROLES, type Role, type Token } from "../../core/people/person.ts";
import type { Site } from "../../core/sites/site.ts";
import { AddressText } from "../../ui/links/AddressText.tsx";
import { copyText } from "../../ui/keys/copy.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { SiteFields } from "./SiteFields.tsx";
import { when } from "../../ui/format/when.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";

const HOST_WORD = {
  primary: "pages and routes",
  short: "short links only",
  other: "pages and routes",
} as const;

/** A site's hosts, and the tokens with which scripts reach the API. */
export function SettingsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <div className="grid max-w-4xl gap-8">
        <section aria-labelledby="hosts">
          <h1 id="hosts" className="mb-2 text-lg font-semibold">
            Hosts of {site.name}
          </h1>
          <table className="w-full text-left">
            <tbody>
              {site.hosts.map((host) => (
                <tr key={host.name} className="border-b border-line/60">
                  <td className="py-1.5 pr-4">
                    <AddressText address={host.url} />
                  </td>
                  <td className="py-1.5 pr-4">{host.role}</td>
                  <td className="py-1.5 text-quiet">{HOST_WORD[host.role]}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-2 text-sm text-quiet">
            New short links on the primary host begin with{" "}
            <span className="font-mono">{site.shortPrefix || "/"}</span>; a host kept for short links needs no
            prefix.
          </p>
        </section>
        <SiteFields site={site} />
        <Tokens />
      </div>
    </Screen>
  );
}

function Tokens() {
  const tokens = useQuery(asking("GET /tokens"));
  const [fresh, setFresh] = useState<Token>();
  const remove = useMutation({
    mutationFn: (id: string) => api("DELETE /tokens/:id", { id }),
    onSuccess: () => refresh("GET /tokens"),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  return (
    <section aria-labelledby="tokens">
      <h2 id="tokens" className="mb-2 text-lg font-semibold">
        API tokens
      </h2>
      {tokens.isError ? <p className="text-bad">{messageOf(tokens.error)}</p> : null}
      {fresh ? (
        <div role="status" className="mb-3 rounded border border-good bg-sheet p-3">
          <p>The token “{fresh.name}”. It is shown this once and kept nowhere; copy it now.</p>
          <p className="mt-1 flex items-center gap-2">
            <code className="font-mono text-sm break-all">{fresh.token}</code>
            <button className="action" onClick={() => void copyText(fresh.token!)}>
              <Copy size={14} aria-hidden /> Copy
            </button>
          </p>
        </div>
      ) : null}
      <NewToken onMade={setFresh} />
      {tokens.data?.items.length === 0 ? (
        <p className="text-quiet">
          No tokens yet. A script needs one to call the API; see /api/v1/openapi.json for what it can do.
        </p>
      ) : null}
      <table className="w-full text-left">
        <tbody>
          {tokens.data?.items.map((token) => (
            <tr key={token.id} className="border-b border-line/60">
              <td className="py-1.5 pr-4 font-medium">{token.name}</td>
              <td className="py-1.5 pr-4">{token.role}</td>
              <td className="py-1.5 pr-4 text-sm text-quiet">
                {token.expiresAt ? `until ${when(token.expiresAt)}` : "no end"}
              </td>
              <td className="py-1.5 pr-4 text-sm text-quiet">
                {token.lastUsedAt ? `last used ${when(token.lastUsedAt)}` : "never used"}
              </td>
              <td className="py-1.5 text-right">
                <button className="action action-plain text-bad" onClick={() => remove.mutate(token.id)}>
                  End it<span className="sr-only"> ({token.name})</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function NewToken({ onMade }: { onMade: (token: Token) => void }) {
  const form = useForm({ defaultValues: { name: "", role: "editor" as Role, expires: "" } });
  const make = useMutation({
    mutationFn: (values: { name: string; role: Role; expires: string }) =>
      api("POST /tokens", {
        body: {
          name: values.name,
          role: values.role,
          expiresAt: values.expires ? `${values.expires}T23:59:59Z` : null,
        },
      }),
    onSuccess: (token) => {
      onMade(token);
      form.reset();
      void refresh("GET /tokens");
    },
  });
  return (
    <form
      className="mb-4 flex flex-wrap items-end gap-3"
      onSubmit={(event) => void form.handleSubmit((values) => make.mutate(values))(event)}
    >
      <FieldRow label="Name of a new token" error={make.isError ? messageOf(make.error) : undefined}>
        {(attributes) => <input {...attributes} {...form.register("name")} className="field w-64" />}
      </FieldRow>
      <FieldRow label="May act as">
        {(attributes) => (
          <select {...attributes} {...form.register("role")} className="field">
            {ROLES.map((role) => (
              <option key={role}>{role}</option>
            ))}
          </select>
        )}
      </FieldRow>
      <FieldRow label="Last day (none: no end)">
        {(attributes) => (
          <input {...attributes} {...form.register("expires")} type="date" className="field" />
        )}
      </FieldRow>
      <button className="action" disabled={make.isPending}>
        Make token
      </button>
    </form>
  );
}
