import * as say from "../words.ts";
export const CHANGE_KINDS = [
  ["override", say.setTabAndRelByHand],
  ["clear-overrides", say.leaveToTheRules],
  ["destination", say.replaceADestination],
  ["host", say.replaceAHost],
  ["parameter", say.changeAParameter],
  ["shorten", say.makeShortLinksOfThem],
] as const;

export type ChangeKind = (typeof CHANGE_KINDS)[number][0];
