import { clicks } from "./clicks.ts";
import { command } from "./command.ts";
import { edge } from "./edge.ts";
import { front } from "./front.ts";
import { hostile } from "./hostile.ts";
import { lighthouseScores } from "./lighthouse.ts";
import { programs } from "./programs.ts";
import { read } from "./read.ts";
import { redirects } from "./redirects.ts";
import { rules } from "./rules.ts";
import { screens } from "./screens.ts";
import { tables } from "./tables.ts";
import { writing } from "./writing.ts";

// npm run bench -- NAME: each measures against its yardstick in the same run and prints a table.
const benches: Readonly<Record<string, (...words: string[]) => Promise<void>>> = {
  redirects,
  clicks,
  command,
  tables,
  writing,
  rules,
  programs,
  hostile,
  front,
  edge,
  read,
  screens,
  lighthouse: lighthouseScores,
};

const name = process.argv[2];
const bench = name ? benches[name] : undefined;
if (!bench) {
  console.error(`Which? npm run bench -- ${Object.keys(benches).join(" | ")}`);
  process.exit(1);
}
await bench(...process.argv.slice(3));
