// Plain JavaScript: it runs before anything is installed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const root = fileURLToPath(new URL("..", import.meta.url));

/** Ends the process with one plain sentence. */
export function giveUp(sentence) {
  console.error(`\nMap Rope cannot start: ${sentence}`);
  process.exit(1);
}

/** Installs the npm packages of the lock file, if that has not been done for this lock file and Node.js. */
export function installPackages() {
  const [major, minor] = process.versions.node.split(".").map(Number);
  if (major < 20 || (major === 20 && minor < 12)) {
    giveUp(`Node.js ${process.versions.node} is too old; install 20.12 or newer.`);
  }
  const lock = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .update(process.versions.modules)
    .digest("hex");
  const stamp = join(root, "node_modules/.maprope-installed");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.log("Installing npm packages…");
  // Not “npm ci”: it refuses a lock file without other platforms' optional binaries, which not every registry holds.
  const npm = spawnSync("npm", ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"], {
    cwd: root,
    stdio: "inherit",
  });
  if (npm.status !== 0)
    giveUp(
      "the npm packages could not be installed; see the lines above, and try again when the registry answers.",
    );
  writeFileSync(stamp, lock);
}

const TURNS = 100;

/** Installs packages of Debian's that are missing, when this process may; else says what to do. */
export function installDebian(packages, isThere, purpose) {
  if (isThere()) return;
  const names = packages.join(" ");
  if (process.getuid?.() !== 0) {
    giveUp(
      `${purpose} is missing and only root may install it; run “sudo apt-get install ${names}” and start again.`,
    );
  }
  console.log(`Installing ${names} from Debian's packages…`);
  const apt = (...args) =>
    spawnSync("apt-get", args, {
      stdio: ["ignore", "ignore", "pipe"],
      encoding: "utf8",
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    });
  // Several processes may begin at once, of ours or of the machine: one of them has the lock, the others wait for it.
  for (let left = TURNS; left > 0; left -= 1) {
    const said = apt("update").stderr + apt("install", "-y", "--no-install-recommends", ...packages).stderr;
    if (isThere()) return;
    if (!/\block\b/i.test(said)) {
      process.stderr.write(said);
      break;
    }
    spawnSync("sleep", ["3"]);
  }
  if (!isThere())
    giveUp(
      `${purpose} is missing and could not be installed; run “apt-get install ${names}” and start again.`,
    );
}
