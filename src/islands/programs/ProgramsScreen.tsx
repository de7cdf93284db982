import { Plus } from "lucide-react";
import { PROGRAM_STATES, type ProgramState } from "../../core/programs/choices.ts";
import type { Site } from "../../core/sites/site.ts";
import { isAskedFor } from "../../core/programs/asked-for.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { later } from "../../ui/frame/later.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { useColumns } from "../../ui/table/columns.ts";
import { useSelection } from "../../ui/table/use-selection.ts";
import { WorkTable } from "../../ui/table/WorkTable.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { sorted } from "./directory/sort-programs.ts";
import { PROGRAM_COLUMNS, programColumns } from "./directory/columns.tsx";
import { ProgramChart } from "./directory/ProgramChart.tsx";
import { asOptions } from "../../ui/choose/options.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { FilterChoice } from "../../ui/filter/FilterChoice.tsx";
import { FilterSelect } from "../../ui/filter/FilterSelect.tsx";
import { Reminders } from "./Reminders.tsx";
import { usePrograms } from "./use-programs.ts";
import { messageOf } from "../../ui/client/api.ts";
import * as say from "./words.ts";

const OpenProgram = later(async () => (await import("./open/OpenProgram.tsx")).default);

/** All programs side by side, and each of them from its terms to its links. */
export function ProgramsScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <Programs site={site} />
    </Screen>
  );
}

const NEW = "new";
const BESIDE = ["state", "earned"];
const RIGHT = {
  epc7: "text-right",
  epc30: "text-right",
  epc90: "text-right",
  own7: "text-right",
  own30: "text-right",
  own90: "text-right",
  links: "text-right",
  clicks: "text-right",
  earned: "text-right",
  nextStep: "max-w-56",
  name: "whitespace-nowrap",
  network: "whitespace-nowrap",
  commission: "whitespace-nowrap",
};

function Programs({ site }: { site: Site }) {
  const programs = usePrograms(site);
  const [q] = useAddressState("q");
  const [state] = useAddressState("state");
  const [network] = useAddressState("network");
  const [sort, setSort] = useAddressState("sort");
  const [open] = useAddressState("open");
  const all = programs.data ?? [];
  const networks = [...new Set(all.map((one) => one.network).filter(Boolean))].sort();
  const shown = sorted(
    all.filter((one) => isAskedFor(one, { q, state: state as ProgramState, network })),
    sort || "state",
  );
  const selection = useSelection(shown.map(({ id }) => id));
  const marked = shown.filter(({ id }) => selection.has(id));
  const opened = all.find(({ id }) => id === open);
  const isOpen = opened !== undefined || open === NEW;
  const [columns] = useColumns(PROGRAM_COLUMNS);
  if (programs.isError) return <p className="text-bad">{messageOf(programs.error)}</p>;
  return (
    <>
      <div className="flex flex-wrap items-start gap-3">
        <SectionTabs site={site} tab="programs" />
        <div className="ml-auto flex gap-2">
          <ColumnChoice of={PROGRAM_COLUMNS} />
          <button
            data-needs="editor"
            className="action py-1 text-sm"
            onClick={() => setAddressState({ open: NEW })}
          >
            <Plus size={14} aria-hidden /> {say.newProgram}
          </button>
        </div>
      </div>
      <Reminders programs={all} />
      <FilterBar
        search={{
          label: say.searchProgramsByNameNetworkDomainTag,
          placeholder: say.searchPrograms,
        }}
        narrows={["q", "state", "network"]}
        found={
          shown.length === all.length ? `${all.length} programs` : `${shown.length} of ${all.length} programs`
        }
      >
        <FilterSelect
          name="state"
          label={say.state}
          every={say.stateAll}
          options={PROGRAM_STATES.map((one) => [one, one])}
        />
        <FilterChoice
          name="network"
          label={say.network}
          every={say.networkAll}
          options={asOptions(networks)}
        />
      </FilterBar>
      <div
        className={
          isOpen
            ? "grid grow items-start gap-5 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_minmax(28rem,36rem)]"
            : "grow"
        }
      >
        <div className="min-w-0">
          {programs.isSuccess && all.length === 0 ? (
            <Empty site={site} />
          ) : (
            <>
              {isOpen || shown.length === 0 ? null : (
                <ProgramChart programs={marked.length > 0 ? marked : shown} />
              )}
              <WorkTable
                name="programs"
                rows={shown}
                columns={programColumns}
                visible={Object.fromEntries(
                  Object.keys(PROGRAM_COLUMNS.words).map((name) => [
                    name,
                    columns.includes(name) && (!isOpen || BESIDE.includes(name)),
                  ]),
                )}
                head={RIGHT}
                cell={RIGHT}
                openId={opened?.id ?? ""}
                sort={sort}
                setSort={setSort}
                selection={selection}
                more={undefined}
                nameOf={({ name }) => name}
                all={say.programs}
                onKey={(key, program) => {
                  if (key === "Enter") setAddressState({ open: program.id });
                  else if (key === "s" && program.signInAddress)
                    window.open(program.signInAddress, "_blank", "noopener");
                  else return false;
                  return true;
                }}
              />
            </>
          )}
        </div>
        {isOpen ? <OpenProgram key={open} site={site} program={opened} /> : null}
      </div>
    </>
  );
}

function Empty({ site }: { site: Site }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">{say.noProgramsYet}</p>
      <p className="text-quiet">
        {say.findOneInA}{" "}
        <a className="text-accent underline" href={`/${site.key}/programs/catalogue`}>
          {say.networksCatalogue}
        </a>
        {say.orWriteDownOneThatYouHave}
      </p>
    </div>
  );
}
