import { useMutation, useQuery } from "@tanstack/react-query";
import { FileUp } from "lucide-react";
import { useState } from "react";
import type { Network } from "../../../core/programs/program.ts";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseFiles } from "../../../ui/fields/ChooseFiles.tsx";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { notify } from "../../../ui/notices/notices.ts";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { useNetworks } from "../use-programs.ts";
import { Entries } from "./Entries.tsx";
import { refresh, keyOf } from "../../../ui/client/queries.ts";
import { api, messageOf } from "../../../ui/client/api.ts";
import { sendFile } from "../../../ui/client/upload.ts";

/** Finding a program: a network's catalogue, or one's own file, beside what is known already. */
export function CatalogueScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="programs/catalogue" />
      <Catalogue site={site} />
    </Screen>
  );
}

function Catalogue({ site }: { site: Site }) {
  const networks = useNetworks(site);
  const [chosen, choose] = useAddressState("network");
  const [q, setQ] = useAddressState("q");
  const words = useDebounced(q, 200);
  const [file, setFile] = useState<File>();
  const [adding, setAdding] = useState(false);
  const network = chosen || networks.data?.find(({ catalogue }) => catalogue !== "")?.name || "";
  const from = file ? `${file.name} ${file.lastModified}` : network;
  const found = useQuery({
    queryKey: [...keyOf("GET /sites/:site/catalogue", { site: site.id, query: { network, q: words } }), from],
    queryFn: () =>
      file
        ? sendFile("POST /sites/:site/catalogue", { site: site.id, query: { q: words } }, file)
        : api("GET /sites/:site/catalogue", { site: site.id, query: { network, q: words } }),
    enabled: from !== "",
    placeholderData: (previous) => previous,
    retry: false,
    staleTime: 10_000,
  });
  return (
    <>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <select
          className="field w-auto"
          aria-label="Catalogue of"
          value={file ? "" : network}
          onChange={(event) => {
            setFile(undefined);
            choose(event.target.value);
          }}
        >
          {file ? <option value="">{file.name}</option> : null}
          {networks.data?.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
        <input
          type="search"
          className="field max-w-80 grow"
          aria-label="Search the catalogue"
          placeholder="What your readers would buy"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        <ChooseFiles
          label="Catalogue as a file"
          accept=".csv,.json,.txt"
          className="action"
          onChoose={([one]) => setFile(one)}
        >
          <FileUp size={15} aria-hidden /> From a file
        </ChooseFiles>
        <button className="action action-plain" onClick={() => setAdding(!adding)}>
          Networks
        </button>
      </div>
      {adding ? <NetworkForm site={site} networks={networks.data ?? []} /> : null}
      {networks.isSuccess && networks.data.length === 0 && !file ? (
        <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
          No network is known yet. Write one down under “Networks”, or take a catalogue that you have as a
          file (CSV or JSON).
        </p>
      ) : null}
      {found.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(found.error)}
        </p>
      ) : found.data ? (
        <Entries site={site} network={file ? "" : network} answer={found.data} />
      ) : found.isFetching ? (
        <p className="text-quiet">Asking {network}…</p>
      ) : null}
    </>
  );
}

function NetworkForm({ site, networks }: { site: Site; networks: readonly Network[] }) {
  const [name, setName] = useState(networks[0]?.name ?? "");
  const known = networks.find((one) => one.name === name);
  const [typed, setTyped] = useState<{ hosts?: string; catalogue?: string; report?: string }>({});
  const hosts = typed.hosts ?? known?.hosts.join(" ") ?? "";
  const catalogue = typed.catalogue ?? known?.catalogue ?? "";
  const report = typed.report ?? known?.report ?? "";
  const save = useMutation({
    mutationFn: () =>
      api("PUT /sites/:site/networks", {
        site: site.id,
        body: { name, hosts: hosts.split(/[\s,]+/).filter(Boolean), catalogue, report },
      }),
    onSuccess: () => {
      setTyped({});
      notify(`Saved ${name}`);
      return refresh("GET /sites/:site/networks", "GET /sites/:site/catalogue");
    },
  });
  const field = (label: string, value: string, change: (value: string) => void, mono = true) => (
    <FieldRow label={label}>
      {(attributes) => (
        <input
          {...attributes}
          className={`field ${mono ? "font-mono text-sm" : ""}`}
          list={mono ? undefined : "networks"}
          value={value}
          onChange={(event) => change(event.target.value)}
        />
      )}
    </FieldRow>
  );
  return (
    <form
      aria-label="Network"
      className="mb-4 grid max-w-4xl gap-2 rounded border border-line bg-sheet p-3 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      {field("Network", name, setName, false)}
      <datalist id="networks">
        {networks.map((one) => (
          <option key={one.id} value={one.name} />
        ))}
      </datalist>
      {field("Hosts that its tracked links go to", hosts, (value) => setTyped({ ...typed, hosts: value }))}
      {field("Its catalogue (JSON or CSV)", catalogue, (value) => setTyped({ ...typed, catalogue: value }))}
      {field("Its report (CSV)", report, (value) => setTyped({ ...typed, report: value }))}
      <div className="flex items-center gap-3 sm:col-span-2">
        <button className="action action-main" disabled={save.isPending || name.trim() === ""}>
          Save network
        </button>
        {save.isError ? <span className="text-bad">{messageOf(save.error)}</span> : null}
      </div>
    </form>
  );
}
