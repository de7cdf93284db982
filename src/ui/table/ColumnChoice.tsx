import { Columns3 } from "lucide-react";
import { PopupButton } from "../panel/PopupButton.tsx";
import { useColumns, type Columns } from "./columns.ts";
import * as say from "../words.ts";

/** Which columns the table shows. */
export function ColumnChoice({ of }: { of: Columns }) {
  const [shown, choose] = useColumns(of);
  const toggle = (name: string): void =>
    choose(shown.includes(name) ? shown.filter((one) => one !== name) : [...shown, name]);
  return (
    <PopupButton label={say.columns} className="gap-1" sign={Columns3} word={say.columns}>
      {Object.entries(of.words).map(([name, word]) => (
        <label key={name} className="flex items-center gap-2">
          <input type="checkbox" checked={shown.includes(name)} onChange={() => toggle(name)} /> {word}
        </label>
      ))}
    </PopupButton>
  );
}
