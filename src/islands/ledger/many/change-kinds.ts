export const CHANGE_KINDS = [
  ["override", "Set tab and rel by hand"],
  ["clear-overrides", "Leave to the rules"],
  ["destination", "Replace a destination"],
  ["host", "Replace a host"],
  ["parameter", "Change a parameter"],
  ["shorten", "Make short links of them"],
] as const;

export type ChangeKind = (typeof CHANGE_KINDS)[number][0];
