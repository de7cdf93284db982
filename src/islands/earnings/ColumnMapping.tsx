import type { ReportColumns, ReportLook } from "../../core/earnings/earning.ts";
import { FieldRow } from "../../ui/fields/FieldRow.tsx";

const FIELDS = [
  ["reference", "Order or transaction"],
  ["at", "Date"],
  ["commission", "Commission"],
  ["amount", "Sale amount"],
  ["currency", "Currency"],
  ["state", "State"],
  ["kind", "Sale or lead"],
  ["subId", "Sub-ID"],
  ["program", "Program"],
  ["clicks", "Their clicks"],
] as const;

const ORDERS = { ymd: "2026-11-24", dmy: "24.11.2026", mdy: "11/24/2026" } as const;

/** Which column says what, with the first rows beside it. */
export function ColumnMapping(props: {
  look: ReportLook;
  columns: Partial<ReportColumns>;
  onChange: (columns: Partial<ReportColumns>) => void;
}) {
  const { look, columns, onChange } = props;
  const set = (name: string, value: string): void =>
    onChange({ ...columns, [name]: value === "" ? undefined : value });
  const ambiguous = look.dateOrders.length > 1;
  return (
    <fieldset className="grid gap-3 rounded border border-line bg-sheet p-3">
      <legend className="px-1 text-sm text-quiet">
        {look.remembered ? "Columns as they were named the last time" : "What its columns seem to say"}
      </legend>
      <div className="grid gap-2 sm:grid-cols-3">
        {FIELDS.map(([name, label]) => (
          <FieldRow key={name} label={label}>
            {(attributes) => (
              <select
                {...attributes}
                className="field"
                value={columns[name] ?? ""}
                onChange={(event) => set(name, event.target.value)}
              >
                <option value="">
                  {name === "at" || name === "commission" ? "choose" : "not in this report"}
                </option>
                {look.header.map((head) => (
                  <option key={head}>{head}</option>
                ))}
              </select>
            )}
          </FieldRow>
        ))}
        {columns.currency ? null : (
          <FieldRow label="All in one currency">
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                maxLength={3}
                placeholder="EUR"
                value={columns.fixedCurrency ?? ""}
                onChange={(event) => set("fixedCurrency", event.target.value.toUpperCase())}
              />
            )}
          </FieldRow>
        )}
        <FieldRow
          label="Dates are written"
          error={ambiguous ? "These dates can be read either way: say which." : undefined}
        >
          {(attributes) => (
            <select
              {...attributes}
              className="field"
              value={columns.dates ?? ""}
              onChange={(event) => set("dates", event.target.value)}
            >
              <option value="">choose</option>
              {Object.entries(ORDERS).map(([order, example]) => (
                <option key={order} value={order}>
                  {example}
                </option>
              ))}
            </select>
          )}
        </FieldRow>
        <FieldRow label="Decimals">
          {(attributes) => (
            <select
              {...attributes}
              className="field"
              value={columns.decimal ?? "."}
              onChange={(event) => set("decimal", event.target.value)}
            >
              <option value=".">12.50</option>
              <option value=",">12,50</option>
            </select>
          )}
        </FieldRow>
      </div>
      <div className="overflow-x-auto">
        <table className="w-full text-left text-xs">
          <thead className="text-quiet">
            <tr>
              {look.header.map((head) => (
                <th key={head} scope="col" className="pr-3 font-medium">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="font-mono">
            {look.sample.slice(0, 3).map((row, at) => (
              <tr key={at}>
                {row.map((cell, index) => (
                  <td key={index} className="max-w-48 truncate pr-3">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </fieldset>
  );
}
