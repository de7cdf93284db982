import { useMutation } from "@tanstack/react-query";
import type { HostCheck, SiteHost } from "../../../core/sites/host.ts";
import { HOST_ROLES } from "../../../core/sites/choices.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { CheckField, SelectField, TextField } from "../../../ui/form/fields.tsx";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { notify } from "../../../ui/notices/notices.ts";
import { useTitle } from "../../../ui/frame/use-title.ts";
import { SidePanel } from "../../../ui/panel/SidePanel.tsx";
import { HistoryLink } from "../../../ui/links/HistoryLink.tsx";
import { whatHangsOn } from "./what-hangs-on.ts";
import * as say from "../words.ts";

/** One host: what hangs on it, whether its name leads here, another name or kind for it, and how to take it away. */
export function OpenHost(props: {
  site: Site;
  host: SiteHost;
  /** It is called so by now. */
  onChanged: (name: string) => void;
  onClose: () => void;
}) {
  const { site, host, onChanged, onClose } = props;
  const place = { site: site.id, host: host.name };
  const refreshHosts = () => refresh("GET /sites/:site/hosts", "GET /sites");
  const check = useMutation({
    mutationFn: () => api("POST /sites/:site/hosts/:host/check", place),
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const remove = useMutation({
    mutationFn: () => api("DELETE /sites/:site/hosts/:host", place),
    onSuccess: () => {
      onClose();
      notify(say.wasRemoved(host.name));
      return refreshHosts();
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  useTitle(host.name);
  return (
    <SidePanel
      label={say.theHost(host.name)}
      of={host.name}
      title={host.name}
      className="mt-3"
      isWithin
      onClose={onClose}
    >
      <div className="grid gap-3">
        <p className="text-sm">
          {whatHangsOn(host)} <HistoryLink site={site} kind="host" object={host.name} />
        </p>
        <div className="flex flex-wrap items-start gap-3">
          <button className="action" disabled={check.isPending} onClick={() => check.mutate()}>
            {check.isPending ? say.asking : say.doesItLeadHere}
          </button>
          {check.data ? <Checked check={check.data} /> : null}
        </div>
        {host.role === "former" ? null : (
          <ChangeHost
            site={site}
            host={host}
            onChanged={(name) => {
              onChanged(name);
              void refreshHosts();
            }}
          />
        )}
        {host.role === "primary" ? null : (
          <button
            data-needs="owner"
            className="action action-plain justify-self-start text-bad"
            disabled={remove.isPending}
            onClick={() => remove.mutate()}
          >
            {say.remove2(host.name)}
          </button>
        )}
      </div>
    </SidePanel>
  );
}

function ChangeHost({
  site,
  host,
  onChanged,
}: {
  site: Site;
  host: SiteHost;
  onChanged: (name: string) => void;
}) {
  const form = useSavedForm({
    values: { name: host.name, role: host.role as (typeof HOST_ROLES)[number], keepsOld: true },
    save: ({ name, role, keepsOld }) =>
      api("PATCH /sites/:site/hosts/:host", {
        site: site.id,
        host: host.name,
        body: { name, ...(role === host.role ? {} : { role }), keepsOld },
      }),
    onSaved: ({ name }) => {
      notify(say.saved);
      onChanged(name);
    },
  });
  const isRenamed = form.watch("name").trim() !== host.name;
  return (
    <Form
      of={form}
      needs="owner"
      label={say.change2(host.name)}
      className="flex flex-wrap items-start gap-3"
      actions={
        <SaveButton of={form} className="mt-6">
          {say.save}
        </SaveButton>
      }
    >
      <TextField name="name" label={say.name2} mono className="w-72" />
      {host.role === "primary" ? null : (
        <SelectField name="role" label={say.kind} options={HOST_ROLES.map((role) => [role, role])} />
      )}
      {isRenamed ? (
        <div className="mt-7">
          <CheckField name="keepsOld">{say.goesOnLeadingReadersToTheNew(host.name)}</CheckField>
        </div>
      ) : null}
    </Form>
  );
}

function Checked({ check }: { check: HostCheck }) {
  return (
    <div role="status">
      <ul aria-label={say.whatItAnswered} className="grid gap-0.5 text-sm">
        {Object.values(check).map(({ address, isOurs, says }) => (
          <li key={address} className={isOurs ? "text-good" : "text-warn"}>
            <span className="font-mono">{address}</span> {says}
          </li>
        ))}
      </ul>
    </div>
  );
}
