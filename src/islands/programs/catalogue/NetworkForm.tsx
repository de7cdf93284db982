import type { Network } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { api } from "../../../ui/client/api.ts";
import { refresh } from "../../../ui/client/queries.ts";
import { Form, SaveButton } from "../../../ui/form/Form.tsx";
import { TextField } from "../../../ui/form/fields.tsx";
import { useSavedForm } from "../../../ui/form/use-saved-form.ts";
import { HostsField, NetworkField } from "../PartnerFields.tsx";
import { notify } from "../../../ui/notices/notices.ts";
import * as say from "../words.ts";

/** What is known of a network: one of the list, or a new one by its name. */
export default function NetworkForm({ site, networks }: { site: Site; networks: readonly Network[] }) {
  const form = useSavedForm({
    values: typed(networks[0]),
    save: ({ name, hosts, catalogue, report }) =>
      api("PUT /sites/:site/networks", {
        site: site.id,
        body: { name, hosts, catalogue, report },
      }),
    onSaved: (saved, { reset }) => {
      reset(typed(saved));
      notify(say.saved(saved.name));
      void refresh("GET /sites/:site/networks", "GET /sites/:site/catalogue");
    },
  });
  // Whoever names one that is known sees what is known of it.
  const show = (name: string): void => {
    const known = networks.find((one) => one.name === name);
    if (known) form.reset(typed(known));
  };
  return (
    <Form
      of={form}
      needs="editor"
      label={say.network}
      className="mb-4 grid max-w-4xl gap-2 rounded border border-line bg-sheet p-3 grid-cols-[minmax(0,1fr)] sm:grid-cols-2"
      actions={
        <SaveButton of={form} className="justify-self-start sm:col-span-2">
          {say.saveNetwork}
        </SaveButton>
      }
    >
      <NetworkField name="name" networks={networks} onChosen={show} />
      <HostsField site={site} name="hosts" label={say.hostsThatItsTrackedLinksGoTo} />
      <TextField name="catalogue" label={say.itsCatalogueJsonOrCsv} mono />
      <TextField name="report" label={say.itsReportCsv} mono />
    </Form>
  );
}

function typed(network: Network | undefined) {
  return {
    name: network?.name ?? "",
    hosts: [...(network?.hosts ?? [])],
    catalogue: network?.catalogue ?? "",
    report: network?.report ?? "",
  };
}
