import { money } from "../../ui/format/format.ts";
import type { Program } from "../../core/programs/program.ts";
import type { ProgramState } from "../../core/programs/choices.ts";

/** The colour that a state is shown in. */
export const STATE_TONE: Readonly<Record<ProgramState, string>> = {
  considering: "text-quiet",
  applied: "text-accent",
  approved: "text-good",
  paused: "text-warn",
  closed: "text-bad",
};

/** What a program pays, in words: “6 % of a sale”. */
export function commissionWords(
  program: Pick<Program, "commission" | "commissionKind" | "commissionFor" | "currency">,
): string {
  const { commission, commissionKind, commissionFor, currency } = program;
  return commissionKind === "percent"
    ? `${Number(commission)} % of a ${commissionFor}`
    : `${money(commission, currency)} a ${commissionFor}`;
}

/** When a program pays next, counted from a day; undefined when nobody has said on which day of the month it pays. */
export function nextPayout({ payoutDay }: Pick<Program, "payoutDay">, today: Date): Date | undefined {
  if (payoutDay === null) return undefined;
  const inMonth = (month: number): Date => {
    const last = new Date(today.getFullYear(), month + 1, 0).getDate();
    return new Date(today.getFullYear(), month, Math.min(payoutDay, last));
  };
  const here = inMonth(today.getMonth());
  return here >= new Date(today.getFullYear(), today.getMonth(), today.getDate())
    ? here
    : inMonth(today.getMonth() + 1);
}
