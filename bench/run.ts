import { clicks } from "./clicks.ts";
import { hostile } from "./hostile.ts";
import { programs } from "./programs.ts";
import { redirects } from "./redirects.ts";
import { rules } from "./rules.ts";
import { tables } from "./tables.ts";
import { writing } from "./writing.ts";

// npm run bench -- NAME: each measures against its yardstick in the same run and prints a table.
const benches: Readonly<Record<string, () => Promise<void>>> = {
  redirects,
  clicks,
  tables,
  writing,
  rules,
  programs,
  hostile,
};

const name = process.argv[2];
const bench = name ? benches[name] : undefined;
if (!bench) {
  console.error(`Which? npm run bench -- ${Object.keys(benches).join(" | ")}`);
  process.exit(1);
}
await bench();
