import { Plus } from "lucide-react";
import { PROGRAM_STATES, type ProgramFigures, type ProgramState } from "../../core/programs/program.ts";
import type { Site } from "../../core/sites/site.ts";
import { isAskedFor } from "../../core/programs/asked-for.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { ColumnChoice } from "../../ui/table/ColumnChoice.tsx";
import { shownColumns } from "../../ui/table/columns.ts";
import { useSelection } from "../../ui/table/use-selection.ts";
import { WorkTable } from "../../ui/table/WorkTable.tsx";
import { setAddressState, useAddressState } from "../../ui/client/url-state.ts";
import { PROGRAM_COLUMNS, sorted } from "./directory/column-names.ts";
import { isDue, programColumns } from "./directory/columns.tsx";
import { ProgramChart } from "./directory/ProgramChart.tsx";
import { OpenProgram } from "./open/OpenProgram.tsx";
import { usePrograms } from "./use-programs.ts";
import { messageOf } from "../../ui/client/api.ts";

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
  const [q, setQ] = useAddressState("q");
  const [state, setState] = useAddressState("state");
  const [network, setNetwork] = useAddressState("network");
  const [sort, setSort] = useAddressState("sort");
  const [open] = useAddressState("open");
  const [choice] = useAddressState("columns");
  const all = programs.data ?? [];
  const shown = sorted(
    all.filter((one) => isAskedFor(one, { q, state: state as ProgramState, network })),
    sort || "state",
  );
  const selection = useSelection(shown.map(({ id }) => id));
  const marked = shown.filter(({ id }) => selection.has(id));
  const opened = all.find(({ id }) => id === open);
  const isOpen = opened !== undefined || open === NEW;
  const columns = shownColumns(choice, PROGRAM_COLUMNS);
  if (programs.isError) return <p className="text-bad">{messageOf(programs.error)}</p>;
  return (
    <>
      <div className="flex flex-wrap items-start gap-3">
        <SectionTabs site={site} tab="programs" />
        <div className="ml-auto flex gap-2">
          <ColumnChoice of={PROGRAM_COLUMNS} />
          <button className="action py-1 text-sm" onClick={() => setAddressState({ open: NEW })}>
            <Plus size={14} aria-hidden /> New program
          </button>
        </div>
      </div>
      <Reminders programs={all} />
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <input
          type="search"
          className="field max-w-64"
          aria-label="Search programs"
          placeholder="Name, network, domain, tag or note"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        <Narrow label="State" value={state} values={[...PROGRAM_STATES]} onChange={setState} />
        <Narrow
          label="Network"
          value={network}
          values={[...new Set(all.map((one) => one.network).filter(Boolean))].sort()}
          onChange={setNetwork}
        />
        <span className="text-sm text-quiet">
          {shown.length === all.length
            ? `${all.length} programs`
            : `${shown.length} of ${all.length} programs`}
        </span>
      </div>
      <div
        className={
          isOpen ? "grid grow items-start gap-5 lg:grid-cols-[minmax(0,1fr)_minmax(28rem,36rem)]" : "grow"
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
                all="programs"
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

function Narrow(props: {
  label: string;
  value: string;
  values: readonly string[];
  onChange: (value: string) => void;
}) {
  return (
    <select
      className="field w-auto"
      aria-label={props.label}
      value={props.value}
      onChange={(event) => props.onChange(event.target.value)}
    >
      <option value="">{props.label}: all</option>
      {props.values.map((value) => (
        <option key={value}>{value}</option>
      ))}
    </select>
  );
}

// What waits for somebody: steps whose day has come, and terms to look at again.
function Reminders({ programs }: { programs: readonly ProgramFigures[] }) {
  const due = programs.flatMap(({ id, name, nextStep, nextStepDue, termsReview }) => [
    ...(nextStepDue && isDue(nextStepDue) ? [{ id, text: `${name}: ${nextStep || "its next step"}` }] : []),
    ...(termsReview && isDue(termsReview) ? [{ id, text: `${name}: look at its terms again` }] : []),
  ]);
  if (due.length === 0) return null;
  return (
    <ul aria-label="Due" className="mb-3 flex flex-wrap gap-x-5 gap-y-1 rounded bg-wash px-3 py-2 text-sm">
      {due.map(({ id, text }) => (
        <li key={text}>
          <button className="text-left hover:underline" onClick={() => setAddressState({ open: id })}>
            <span className="font-medium text-warn">Due</span> {text}
          </button>
        </li>
      ))}
    </ul>
  );
}

function Empty({ site }: { site: Site }) {
  return (
    <div className="grid place-items-center gap-1 rounded border border-dashed border-line py-20 text-center">
      <p className="font-medium">No programs yet.</p>
      <p className="text-quiet">
        Find one in a{" "}
        <a className="text-accent underline" href={`/${site.key}/programs/catalogue`}>
          network’s catalogue
        </a>
        , or write down one that you have joined already: its domains are enough to begin with.
      </p>
    </div>
  );
}
