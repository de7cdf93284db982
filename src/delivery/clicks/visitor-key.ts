import { createHmac, hash, randomBytes } from "node:crypto";
import { mkdirSync, readFileSync, renameSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";

const KEY_LENGTH = 22; // 132 bits in base64url: no two visitors of a day share one
const MAX_KEPT = 10_000;
const DAY = 86_400_000;
const AGAIN_MS = 5_000;
// Behind a longer absence nothing is left to be counted on with.
const MAX_DAYS_ON = 366;

/** Makes visitor keys: a keyed hash of address and user agent that can be compared within one UTC day only. */
export interface VisitorKeys {
  key(address: string, userAgent: string, now: number): string;
  /** Changes whenever keys made before are no longer this moment's: with the day, and when its shared salt comes. */
  epoch(now: number): number;
  /** Resolves once the day's shared salt is known, or cannot be for now: a new process counts nobody apart from the others. */
  ready(now: number): Promise<void>;
  stop(): void;
}

/** A day's salt, days counted from the epoch. */
export interface DaySalt {
  day: number;
  salt: string;
}

/** Where a process keeps its day's salt across a restart. */
export interface SaltKeeping {
  read(): DaySalt | undefined;
  write(salt: DaySalt): void;
}

/**
 * The day's key is made of the installation's secret and a salt that all processes share through `fetchSalt`; it is
 * thrown away with the day. Each day's salt follows from the one before (which it does not give away): so all
 * processes have the same one when the database is away at midnight, and a restart has the one of before. Who has none
 * makes one up, and takes the shared one as soon as the database has it.
 */
export function createVisitorKeys(
  secret: string,
  fetchSalt: (now: number, fresh: string) => Promise<string>,
  keeping: SaltKeeping,
): VisitorKeys {
  let day = -1;
  let dailyKey = "";
  let epoch = 0;
  let again: NodeJS.Timeout | undefined;
  let sharing: Promise<void> = Promise.resolve();
  // A reader's requests come in runs; what was hashed lately is kept in memory, and never longer than the day.
  let lately = new Map<string, string>();
  const hmac = (text: string): string => createHmac("sha256", secret).update(text).digest("base64url");

  function take(salt: string): void {
    dailyKey = hmac(salt);
    lately = new Map();
    epoch += 1;
  }
  // All before `now` is let go of here; what is kept can make no key of an earlier day.
  function saltOf(today: number): string {
    const known = keeping.read();
    if (!known || known.day > today || today - known.day > MAX_DAYS_ON)
      return randomBytes(16).toString("base64url");
    let { salt } = known;
    for (let next = known.day + 1; next <= today; next += 1)
      salt = hmac(`day ${next} after ${salt}`).slice(0, 22);
    return salt;
  }
  function turn(now: number): void {
    day = Math.floor(now / DAY);
    clearTimeout(again);
    const salt = saltOf(day);
    take(salt);
    keeping.write({ day, salt });
    sharing = share(day, salt);
  }
  function share(today: number, salt: string): Promise<void> {
    return fetchSalt(today * DAY, salt).then(
      (shared) => {
        if (today !== day || shared === salt) return;
        take(shared);
        keeping.write({ day: today, salt: shared });
      },
      () => {
        // The database is gone: asked again until it is back or the day is over.
        if (today !== day) return;
        again = setTimeout(() => void share(today, salt), AGAIN_MS);
        again.unref();
      },
    );
  }
  function turnIfDue(now: number): void {
    if (Math.floor(now / DAY) !== day) turn(now);
  }
  return {
    epoch(now) {
      turnIfDue(now);
      return epoch;
    },
    key(address, userAgent, now) {
      turnIfDue(now);
      const who = `${address}\n${userAgent}`;
      const known = lately.get(who);
      if (known !== undefined) return known;
      if (lately.size >= MAX_KEPT) lately.clear();
      // One-shot hash: a third of the time of an HMAC object; the secret prefix is of fixed length and the digest is cut.
      const key = hash("sha256", `${dailyKey}\n${who}`, "base64url").slice(0, KEY_LENGTH);
      lately.set(who, key);
      return key;
    },
    async ready(now) {
      turnIfDue(now);
      await sharing;
    },
    stop: () => clearTimeout(again),
  };
}

/** Keeps the salt in a file that is for its owner alone. A disk that does not take it costs no more than a restart would. */
export function saltFile(path: string, report: (message: string, error: unknown) => void): SaltKeeping {
  return {
    read() {
      try {
        const { day, salt } = JSON.parse(readFileSync(path, "utf8")) as Partial<DaySalt>;
        return Number.isInteger(day) && typeof salt === "string" ? { day: day!, salt } : undefined;
      } catch {
        return undefined; // none was kept yet, or the file was damaged: as on a first day
      }
    },
    write(salt) {
      try {
        mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
        writeFileSync(`${path}.new`, JSON.stringify(salt), { mode: 0o600 });
        renameSync(`${path}.new`, path);
      } catch (error) {
        report(
          "The day's visitor salt could not be kept; after a restart, readers of today count anew.",
          error,
        );
      }
    },
  };
}
