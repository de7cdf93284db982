import { Popover } from "radix-ui";
import { Columns3 } from "lucide-react";
import { useAddressState } from "../client/url-state.ts";
import { shownColumns, type Columns } from "./columns.ts";

/** Which columns the table shows; the choice stands in the screen's address. */
export function ColumnChoice({ of }: { of: Columns }) {
  const [columns, setColumns] = useAddressState("columns");
  const shown = shownColumns(columns, of);
  const toggle = (name: string): void => {
    const next = shown.includes(name) ? shown.filter((one) => one !== name) : [...shown, name];
    const ordered = Object.keys(of.words)
      .filter((one) => next.includes(one))
      .join(",");
    setColumns(ordered === of.standard ? "" : ordered);
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="action py-1 text-sm">
        <Columns3 size={14} aria-hidden /> Columns
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-40 grid gap-1 rounded border border-line bg-sheet p-3 text-sm shadow-xl"
        >
          {Object.entries(of.words).map(([name, word]) => (
            <label key={name} className="flex items-center gap-2">
              <input type="checkbox" checked={shown.includes(name)} onChange={() => toggle(name)} /> {word}
            </label>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
