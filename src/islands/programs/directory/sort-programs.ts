import type { ProgramFigures } from "../../../core/programs/program.ts";
import { inOrder } from "../../../ui/table/in-order.ts";

const number = (text: string | null): number | undefined => (text === null ? undefined : Number(text));

/** What a column is sorted by; undefined where nothing is known. */
export const SORT_VALUE: Readonly<Record<string, (program: ProgramFigures) => string | number | undefined>> =
  {
    name: ({ name }) => name.toLowerCase(),
    state: ({ state }) => ["approved", "paused", "applied", "considering", "closed"].indexOf(state),
    network: ({ network }) => network.toLowerCase(),
    commission: ({ commission, commissionKind }) =>
      Number(commission) + (commissionKind === "flat" ? 1000 : 0),
    epc7: ({ epc }) => number(epc.d7),
    epc30: ({ epc }) => number(epc.d30),
    epc90: ({ epc }) => number(epc.d90),
    own7: ({ ownEpc }) => number(ownEpc.d7),
    own30: ({ ownEpc }) => number(ownEpc.d30),
    own90: ({ ownEpc }) => number(ownEpc.d90),
    cookieDays: ({ cookieDays }) => cookieDays,
    payout: ({ towardsPayout, payoutThreshold }) =>
      payoutThreshold && Number(payoutThreshold) > 0
        ? Number(towardsPayout) / Number(payoutThreshold)
        : undefined,
    links: ({ links }) => links,
    clicks: ({ clicks }) => clicks,
    earned: ({ earned }) => earned.reduce((sum, { amount }) => sum + Number(amount), 0),
    nextStep: ({ nextStepDue, nextStep }) => nextStepDue ?? (nextStep ? "9998" : undefined),
  };

/** Programs in the order that a sort like `-earned` asks for; those of which nothing is known come last either way. */
export function sorted(programs: readonly ProgramFigures[], sort: string): ProgramFigures[] {
  const down = sort.startsWith("-");
  return inOrder(programs, SORT_VALUE[down ? sort.slice(1) : sort] ?? SORT_VALUE.name!, down);
}
