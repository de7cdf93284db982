/**
 * The numbers of the advisory locks of PostgreSQL that processes of an installation take turns by, each with one meaning
 * for ever: nodes of two versions may run side by side. `labels` and `ledger` are taken for a site each (two numbers).
 */
export const LOCKS = {
  migration: 731_600,
  change: 731_601,
  months: 731_602,
  settling: 731_603,
  ledger: 731_603,
  health: 731_604,
  labels: 731_605,
  preparing: 731_606,
  following: 731_607,
  pictures: 731_608,
} as const;
