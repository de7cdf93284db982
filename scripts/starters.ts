import { readFileSync } from "node:fs";

/** A process, told from others that get its number later by when it began. */
export interface Starter {
  pid: number;
  began: string;
}

/** The processes by which npm runs this one: its shell and npm itself. None when it was started otherwise. */
export function startersOf(parent: number, env: NodeJS.ProcessEnv = process.env): Starter[] {
  if (!env.npm_lifecycle_event) return [];
  const starters: Starter[] = [];
  for (let pid = parent; pid > 1 && starters.length < 3;) {
    const stat = statOf(pid);
    if (!stat) break;
    starters.push({ pid, began: stat.began });
    if (stat.isNpm) return starters;
    pid = stat.parent;
  }
  return starters.slice(0, 1);
}

/** True while the process lives; one that has ended and waits to be taken note of does not. */
export function isStill({ pid, began }: Starter): boolean {
  const stat = statOf(pid);
  return stat !== undefined && stat.began === began && stat.state !== "Z";
}

// Field 2 of /proc/PID/stat is the name in brackets, which may hold anything; the others follow behind it (proc(5)).
function statOf(pid: number): { state: string; parent: number; began: string; isNpm: boolean } | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    const [state = "", parent = "0", ...rest] = stat.slice(stat.lastIndexOf(")") + 2).split(" ");
    const command = readFileSync(`/proc/${pid}/cmdline`, "utf8");
    return {
      state,
      parent: Number(parent),
      began: rest[17] ?? "",
      isNpm: /(?:^|\/|\0)npm(?:\0| |-cli)/.test(command),
    };
  } catch {
    return undefined; // it has ended, or this is no Linux
  }
}
