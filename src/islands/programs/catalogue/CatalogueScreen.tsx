import { useQuery } from "@tanstack/react-query";
import { FileUp, RefreshCw } from "lucide-react";
import { useEffect, useState } from "react";
import type { Site } from "../../../core/sites/site.ts";
import { ChooseOne } from "../../../ui/choose/choose.tsx";
import { asOptions } from "../../../ui/choose/options.ts";
import { FilterBar } from "../../../ui/filter/FilterBar.tsx";
import { ChooseFiles } from "../../../ui/fields/ChooseFiles.tsx";
import { useWork } from "../../../ui/notices/job.ts";
import { WorkBar } from "../../../ui/notices/WorkBar.tsx";
import { later } from "../../../ui/frame/later.tsx";
import { SectionTabs } from "../../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../../ui/frame/Screen.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import { useDebounced } from "../../../ui/keys/use-debounced.ts";
import { useNetworks } from "../use-programs.ts";
import { Entries } from "./Entries.tsx";
import { refresh, keyOf } from "../../../ui/client/queries.ts";
import { api, messageOf, startJob } from "../../../ui/client/api.ts";
import { sendFile } from "../../../ui/client/upload.ts";
import * as say from "../words.ts";

const NetworkForm = later(async () => (await import("./NetworkForm.tsx")).default);

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
  const [q] = useAddressState("q");
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
      <FilterBar
        view={
          <ChooseOne
            attributes={{ "aria-label": say.catalogueOf }}
            className="w-52"
            placeholder={file?.name}
            value={file ? "" : network}
            options={asOptions((networks.data ?? []).map(({ name }) => name))}
            onChange={(name) => {
              setFile(undefined);
              choose(name);
            }}
          />
        }
        search={{
          label: say.searchTheCatalogueForWhatYourReaders,
          placeholder: say.searchTheCatalogue,
        }}
        actions={
          <>
            <ChooseFiles
              label={say.catalogueAsAFile}
              accept=".csv,.json,.txt"
              className="action"
              onChoose={([one]) => setFile(one)}
            >
              <FileUp size={15} aria-hidden /> {say.fromAFile}
            </ChooseFiles>
            {file || network === "" ? null : <AskAgain site={site} network={network} />}
            <button data-needs="editor" className="action action-plain" onClick={() => setAdding(!adding)}>
              {say.networks}
            </button>
          </>
        }
      />
      {adding ? <NetworkForm site={site} networks={networks.data ?? []} /> : null}
      {networks.isSuccess && networks.data.length === 0 && !file ? (
        <p className="rounded border border-dashed border-line p-8 text-center text-quiet">
          {say.noNetworkIsKnownYetWriteOne}
        </p>
      ) : null}
      {found.isError ? (
        <p role="alert" className="text-bad">
          {messageOf(found.error)}
        </p>
      ) : found.data ? (
        <Entries site={site} network={file ? "" : network} answer={found.data} />
      ) : found.isFetching ? (
        <p className="text-quiet">{say.asking(network)}</p>
      ) : null}
    </>
  );
}

// A catalogue is kept for a day; who knows of a newer one asks for it.
function AskAgain({ site, network }: { site: Site; network: string }) {
  const work = useWork<"POST /sites/:site/catalogue/pull">();
  const { state } = work;
  useEffect(() => {
    if (state === "done") void refresh("GET /sites/:site/catalogue");
  }, [state]);
  return (
    <>
      <button
        data-needs="editor"
        className="action action-plain"
        disabled={state === "running"}
        onClick={() =>
          work.start(() => startJob("POST /sites/:site/catalogue/pull", { site: site.id, body: { network } }))
        }
      >
        <RefreshCw size={15} aria-hidden /> {say.askAgain(network)}
      </button>
      <WorkBar work={work} label={say.asking2(network)} />
    </>
  );
}
