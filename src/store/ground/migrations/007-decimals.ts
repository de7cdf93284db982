import type { Migration } from "../migration.ts";

// Currencies that ICU counts without decimals, as they are used, and ISO 4217 with two, and the one that it counts with three.
const TWO =
  "'AFN', 'ALL', 'COP', 'HUF', 'IDR', 'IRR', 'KPW', 'LAK', 'LBP', 'MGA', 'MMK', 'PKR', 'SLL', 'SOS', 'SYP', 'YER'";

/** Amounts are counted in the smallest unit of ISO 4217, no longer in that of the runtime's own data. */
export const decimals: Migration = {
  name: "007-decimals",
  statements: [
    `UPDATE conversions SET commission = commission * 100, amount = amount * 100 WHERE currency IN (${TWO})`,
    `UPDATE conversions SET commission = commission * 1000, amount = amount * 1000 WHERE currency = 'IQD'`,
  ],
};
