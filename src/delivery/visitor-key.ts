import { createHmac, hash, randomBytes } from "node:crypto";

const KEY_LENGTH = 22; // 132 bits in base64url: no two visitors of a day share one
const MOST_KEPT = 10_000;

/** Makes visitor keys: a keyed hash of address and user agent that can be compared within one UTC day only. */
export interface VisitorKeys {
  key(address: string, userAgent: string, now: number): string;
  /** Changes whenever keys made before are no longer this moment's: with the day, and when its shared salt comes. */
  epoch(now: number): number;
}

/**
 * The day's key is made of the installation's secret and a random salt that all processes share through
 * `fetchSalt`; the salt is thrown away with the day. Until it has come (or while the database is gone) a
 * salt of this process's own is used.
 */
export function createVisitorKeys(
  secret: string,
  fetchSalt: (now: number, fresh: string) => Promise<string>,
): VisitorKeys {
  let day = -1;
  let dailyKey = "";
  let epoch = 0;
  // A reader's requests come in runs; what was hashed lately is kept in memory, and never longer than the day.
  let lately = new Map<string, string>();
  const derive = (salt: string): string => createHmac("sha256", secret).update(salt).digest("base64url");

  function take(salt: string): void {
    dailyKey = derive(salt);
    lately = new Map();
    epoch += 1;
  }
  function turn(now: number): void {
    day = Math.floor(now / 86_400_000);
    const today = day;
    const fresh = randomBytes(16).toString("base64url");
    take(fresh);
    fetchSalt(now, fresh).then(
      (salt) => {
        if (today !== day) return;
        take(salt);
      },
      () => undefined, // the database is gone: visitors of this day are counted by this process alone
    );
  }
  function turnIfDue(now: number): void {
    if (Math.floor(now / 86_400_000) !== day) turn(now);
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
      if (lately.size >= MOST_KEPT) lately.clear();
      // One-shot hash: a third of the time of an HMAC object; the secret prefix is of fixed length and the digest is cut.
      const key = hash("sha256", `${dailyKey}\n${who}`, "base64url").slice(0, KEY_LENGTH);
      lately.set(who, key);
      return key;
    },
  };
}
