import { useMutation, useQuery } from "@tanstack/react-query";
import { Copy } from "lucide-react";
import { useState } from "react";
import { ROLES, type Role } from "../../core/people/choices.ts";
import type { Token } from "../../core/people/token.ts";
import type { Site } from "../../core/sites/site.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { asking, refresh } from "../../ui/client/queries.ts";
import { Form, SaveButton } from "../../ui/form/Form.tsx";
import { ChooseManyField } from "../../ui/form/choose-fields.tsx";
import { DayField, SelectField, TextField } from "../../ui/form/fields.tsx";
import { useSavedForm } from "../../ui/form/use-saved-form.ts";
import { when } from "../../ui/format/format.ts";
import { copyText } from "../../ui/keys/copy.ts";
import { notify } from "../../ui/notices/notices.ts";
import { DataTable, type Column } from "../../ui/table/DataTable.tsx";
import * as say from "./words.ts";

/** Whose tokens they are: the installation's, or one's own. */
interface Whose {
  own?: boolean;
}

/** The tokens with which scripts reach the API; a new one is shown this once. */
export function Tokens({ own = false }: Whose) {
  const list = own ? "GET /me/tokens" : "GET /tokens";
  const tokens = useQuery(asking(list));
  const sites = useQuery(asking("GET /sites")).data?.items ?? [];
  const nameOf = (id: string): string => sites.find((site) => site.id === id)?.name ?? id;
  const [fresh, setFresh] = useState<Token>();
  const remove = useMutation({
    mutationFn: (id: string) =>
      own ? api("DELETE /me/tokens/:id", { id }) : api("DELETE /tokens/:id", { id }),
    onSuccess: () => refresh(list),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const columns: Column<Token>[] = [
    {
      key: "name",
      word: say.name2,
      head: true,
      cell: ({ name }) => <span className="font-medium">{name}</span>,
    },
    {
      key: "role",
      word: say.mayActAs,
      cell: ({ role, sites: only }) =>
        say.ofWord(role, only ? only.map(nameOf).join(", ") : own ? say.yourSites : say.everySite),
    },
    {
      key: "end",
      word: say.ends,
      cell: ({ expiresAt }) => (expiresAt ? say.until(when(expiresAt)) : say.noEnd),
      cellClass: "text-sm text-quiet",
    },
    {
      key: "used",
      word: say.used,
      cell: ({ lastUsedAt, lastUsedFrom }) =>
        lastUsedAt ? say.lastUsedFrom(when(lastUsedAt), lastUsedFrom) : say.neverUsed,
      cellClass: "text-sm text-quiet",
    },
    {
      key: "action",
      word: <span className="sr-only">{say.whatCanBeDone}</span>,
      className: "text-right",
      cell: ({ id, name }) => (
        <button className="action action-plain text-bad" onClick={() => remove.mutate(id)}>
          {say.endIt}
          <span className="sr-only"> ({name})</span>
        </button>
      ),
    },
  ];
  const items = tokens.data?.items ?? [];
  return (
    <section aria-labelledby="tokens">
      <h2 id="tokens" className="mb-2 text-lg font-semibold">
        {own ? say.yourApiTokens : say.apiTokens}
      </h2>
      {tokens.isError ? <p className="text-bad">{messageOf(tokens.error)}</p> : null}
      {fresh ? <FreshToken token={fresh} /> : null}
      <NewToken own={own} sites={sites} onMade={setFresh} />
      {tokens.isSuccess && items.length === 0 ? (
        <p className="text-quiet">
          {say.noTokensYetAScriptNeedsOne} <a href="/api/v1/docs">{say.theApi2}</a> {say.forWhatItCanDo}
        </p>
      ) : null}
      {items.length > 0 ? (
        <DataTable label={say.apiTokens} rows={items} columns={columns} keyOf={({ id }) => id} />
      ) : null}
    </section>
  );
}

function FreshToken({ token }: { token: Token }) {
  return (
    <div role="status" className="mb-3 rounded border border-good bg-sheet p-3">
      <p>{say.theTokenItIsShownThisOnce(token.name)}</p>
      <p className="mt-1 flex items-center gap-2">
        <code className="font-mono text-sm wrap-anywhere">{token.token}</code>
        <button className="action" onClick={() => void copyText(token.token!)}>
          <Copy size={14} aria-hidden /> {say.copy}
        </button>
      </p>
    </div>
  );
}

function NewToken(props: { own: boolean; sites: readonly Site[]; onMade: (token: Token) => void }) {
  const { own, sites } = props;
  const form = useSavedForm({
    values: { name: "", role: "editor" as Role, expires: "", sites: [] as string[] },
    save: ({ name, role, expires, sites: only }) => {
      const expiresAt = expires ? `${expires}T23:59:59Z` : null;
      const body = { name, role, expiresAt, sites: only.length > 0 ? only : null };
      return own ? api("POST /me/tokens", { body }) : api("POST /tokens", { body });
    },
    onSaved: (token, { reset }) => {
      props.onMade(token);
      reset();
      void refresh("GET /tokens", "GET /me/tokens");
    },
    fieldOf: (path) => (path === "expiresAt" ? "expires" : path),
  });
  return (
    <Form of={form} label={say.newToken} className="mb-4 flex flex-wrap items-end gap-3">
      <TextField name="name" label={say.nameOfANewToken} className="w-64" />
      <SelectField name="role" label={say.mayActAs} options={ROLES.map((role) => [role, role])} />
      <DayField name="expires" label={say.lastDayNoneNoEnd} />
      {sites.length > 1 ? (
        <ChooseManyField
          name="sites"
          label={say.forTheseSitesNoneForAll}
          options={sites.map(({ id, name }) => ({ value: id, word: name }))}
        />
      ) : null}
      <SaveButton of={form} isPlain>
        {say.makeToken}
      </SaveButton>
    </Form>
  );
}
