import type { ProgramFigures } from "../../../core/programs/program.ts";
import { Bars } from "../../../ui/charts/Bars.tsx";
import { Choice } from "../../../ui/fields/Choice.tsx";
import { useAddressState } from "../../../ui/client/url-state.ts";
import * as say from "../words.ts";

const MAX_BARS = 12;

const FIGURES = {
  epc: {
    word: say.epc,
    series: [
      { name: say.theirEpc30Days, field: "theirs", color: "--color-hemp" },
      { name: say.ourEpc90Days, field: "ours", color: "--color-accent" },
    ],
  },
  earned: {
    word: say.earned,
    series: [{ name: say.earnedIn90Days, field: "earned", color: "--color-good" }],
  },
  clicks: {
    word: say.clicks,
    series: [{ name: say.clicksIn90Days, field: "clicks", color: "--color-accent" }],
  },
} as const;
type Figure = keyof typeof FIGURES;

/** Programs side by side by one figure; those that are marked, or all. Money of other currencies than the first is left out. */
export function ProgramChart({ programs }: { programs: readonly ProgramFigures[] }) {
  const [chosen, choose] = useAddressState("chart");
  const figure = (chosen in FIGURES ? chosen : "epc") as Figure;
  const currency = programs[0]?.currency ?? "EUR";
  const rows = programs.slice(0, MAX_BARS).map((program) => {
    const same = program.currency === currency;
    return {
      label: program.name,
      theirs: same ? Number(program.epc.d30 ?? 0) : 0,
      ours: same ? Number(program.ownEpc.d90 ?? 0) : 0,
      earned: Number(program.earned.find((one) => one.currency === currency)?.amount ?? 0),
      clicks: program.clicks,
    };
  });
  const { series, word } = FIGURES[figure];
  const unit = figure === "clicks" ? "" : ` (${currency})`;
  return (
    <section aria-label={say.programsSideBySide} className="grid gap-1">
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label={say.compareBy}
          value={figure}
          options={(Object.keys(FIGURES) as Figure[]).map((value) => ({ value, word: FIGURES[value].word }))}
          onChange={(value) => choose(value === "epc" ? "" : value)}
        />
        <span className="text-sm text-quiet">
          {say.markRowsToCompareOnlyThose(
            programs.length > MAX_BARS ? say.theFirstInTheTablesOrder(MAX_BARS) : "",
          )}
        </span>
      </div>
      <Bars
        rows={rows}
        series={series.map((one) => ({ ...one, name: `${one.name}${unit}`, stack: one.field }))}
        label={say.ofTheSameFiguresStandInThe(word, rows.map(({ label }) => label).join(", "))}
        heightPx={208}
      />
    </section>
  );
}
