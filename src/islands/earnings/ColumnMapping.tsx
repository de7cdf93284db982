import type { ReportColumns, ReportLook } from "../../core/earnings/earning.ts";
import { DataTable } from "../../ui/table/DataTable.tsx";
import { SelectField, TextField } from "../../ui/form/fields.tsx";
import { LiveForm } from "../../ui/form/LiveForm.tsx";
import { useLiveForm } from "../../ui/form/use-live-form.ts";
import * as say from "./words.ts";

const FIELDS = [
  ["reference", say.orderOrTransaction],
  ["at", say.date],
  ["commission", say.commission],
  ["amount", say.saleAmount],
  ["currency", say.currency],
  ["state", say.state],
  ["kind", say.saleOrLead],
  ["subId", say.subId],
  ["program", say.program],
  ["clicks", say.theirClicks],
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
        {look.remembered ? say.columnsAsTheyWereNamedTheLast : say.whatItsColumnsSeemToSay}
      </legend>
      <LiveForm of={form}>
        <div className="grid gap-2 grid-cols-[minmax(0,1fr)] sm:grid-cols-3">
          {FIELDS.map(([name, label]) => (
            <SelectField
              key={name}
              name={name}
              label={label}
              options={[
                ["", name === "at" || name === "commission" ? "choose" : say.notInThisReport],
                ...look.header.map((head) => [head, head] as const),
              ]}
            />
          ))}
          {columns.currency ? null : (
            <TextField
              name="fixedCurrency"
              label={say.allInOneCurrency}
              maxLength={3}
              placeholder={say.eur}
            />
          )}
          <SelectField
            name="dates"
            label={say.datesAreWritten}
            error={look.dateOrders.length > 1 ? "These dates can be read either way: say which." : undefined}
            options={[["", "choose"], ...Object.entries(ORDERS)]}
          />
          <SelectField
            name="decimal"
            label={say.decimals}
            options={[
              [".", "12.50"],
              [",", "12,50"],
            ]}
          />
        </div>
      </LiveForm>
      <div className="text-xs">
        <DataTable
          label={say.theFirstRows}
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
