import type { ReportColumns, ReportLook } from "../../core/earnings/earning.ts";
import { DataTable } from "../../ui/table/DataTable.tsx";
import { SelectField, TextField } from "../../ui/form/fields.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";

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
  const form = useLiveForm<Record<string, string>>({
    values: Object.fromEntries(
      [...FIELDS.map(([name]) => name), "fixedCurrency", "dates", "decimal"].map((name) => [
        name,
        columns[name as keyof ReportColumns] ?? (name === "decimal" ? "." : ""),
      ]),
    ),
    onChange: ({ fixedCurrency = "", ...typed }) =>
      onChange(
        Object.fromEntries(
          Object.entries({ ...typed, fixedCurrency: fixedCurrency.toUpperCase() }).filter(
            ([, value]) => value !== "",
          ),
        ),
      ),
  });
  return (
    <fieldset className="grid gap-3 rounded border border-line bg-sheet p-3">
      <legend className="px-1 text-sm text-quiet">
        {look.remembered ? "Columns as they were named the last time" : "What its columns seem to say"}
      </legend>
      <LiveForm of={form}>
        <div className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-3">
          {FIELDS.map(([name, label]) => (
            <SelectField
              key={name}
              name={name}
              label={label}
              options={[
                ["", name === "at" || name === "commission" ? "choose" : "not in this report"],
                ...look.header.map((head) => [head, head] as const),
              ]}
            />
          ))}
          {columns.currency ? null : (
            <TextField name="fixedCurrency" label="All in one currency" maxLength={3} placeholder="EUR" />
          )}
          <SelectField
            name="dates"
            label="Dates are written"
            error={look.dateOrders.length > 1 ? "These dates can be read either way: say which." : undefined}
            options={[["", "choose"], ...Object.entries(ORDERS)]}
          />
          <SelectField
            name="decimal"
            label="Decimals"
            options={[
              [".", "12.50"],
              [",", "12,50"],
            ]}
          />
        </div>
      </LiveForm>
      <div className="text-xs">
        <DataTable
          label="The first rows"
          rows={look.sample.slice(0, 3)}
          columns={look.header.map((head, at) => ({
            key: `${at}`,
            word: head,
            className: "max-w-48",
            cellClass: "truncate font-mono",
            cell: (row: string[]) => row[at],
          }))}
          keyOf={(row) => String(look.sample.indexOf(row))}
          dense
        />
      </div>
    </fieldset>
  );
}
