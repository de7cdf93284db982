import { spawn } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";

const TAKEN = 75;

/** A folder that is this process's alone for as long as it lives. */
export interface FolderLock {
  release(): void;
}

/**
 * Takes a folder for this process alone; throws an Error with one plain sentence when another living process has it.
 * The kernel holds the lock (flock(2), by util-linux's command of that name, which every Debian has), so containers that
 * share the folder respect it, and it is free at once when the process ends, however it ends: the helper that holds it
 * ends with the pipe from us.
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, "in-use");
  const helper = spawn(
    "flock",
    ["--nonblock", "--conflict-exit-code", String(TAKEN), "--no-fork", file, "cat"],
    {
      stdio: ["pipe", "pipe", "ignore"],
      // Of a process group of its own: a Ctrl-C that stops us does not end it before we are done.
      detached: true,
    },
  );
  helper.stdin.on("error", () => undefined); // it ended before it read: its exit tells why
  await new Promise<void>((resolve, reject) => {
    helper.once("error", (error: NodeJS.ErrnoException) =>
      reject(
        error.code === "ENOENT" ? new Error("The program flock is missing; install util-linux.") : error,
      ),
    );
    helper.once("exit", (code) =>
      reject(
        new Error(
          code === TAKEN
            ? `The data folder ${folder} is in use by another running process; give each process a MAPROPE_DATA of its own.`
            : `The data folder ${folder} cannot be locked; is it writable for this user?`,
        ),
      ),
    );
    // What comes back was copied by a helper that has the lock.
    helper.stdout.once("data", () => resolve());
    helper.stdin.write("locked\n");
  });
  helper.removeAllListeners("exit");
  helper.unref();
  (helper.stdin as unknown as { unref?(): void }).unref?.();
  (helper.stdout as unknown as { unref?(): void }).unref?.();
  return { release: () => void helper.stdin.end() };
}
