import { randomInt } from "node:crypto";
import { Secret, TOTP } from "otpauth";

const DIGITS = 6;
const PERIOD_S = 30;
const SECRET_BYTES = 20;
/** Steps before and behind now that count: clocks differ, and typing takes its time (RFC 6238 section 5.2). */
const WINDOW = 1;

/** How many recovery codes somebody gets, and how long each is. */
const RECOVERY_CODES = 10;
const RECOVERY_LENGTH = 10;
// No letter or digit that could be read as another.
const SIGNS = "abcdefghjkmnpqrstuvwxyz23456789";

/** A new secret (RFC 4226 section 4, requirement 6), in Base32 (RFC 4648 section 6). */
export function newTotpSecret(): string {
  return new Secret({ size: SECRET_BYTES }).base32;
}

/** What an app takes the secret from, as text or as a QR code. */
export function totpAddress(secret: string, mail: string): string {
  return totp(secret, mail).toString();
}

/** The step of a one-time code (RFC 6238), as it is counted; undefined when it is none of now. */
export function stepOf(secret: string, code: string, now: number): number | undefined {
  const token = code.replace(/[\s-]/g, "");
  if (!/^\d{6}$/.test(token)) return undefined;
  const delta = totp(secret, "").validate({ token, timestamp: now, window: WINDOW });
  return delta === null ? undefined : Math.floor(now / 1000 / PERIOD_S) + delta;
}

/** Codes that stand in once each when whatever shows the others is lost. */
export function newRecoveryCodes(): string[] {
  const sign = (): string => SIGNS[randomInt(SIGNS.length)]!;
  return Array.from({ length: RECOVERY_CODES }, () => {
    const code = Array.from({ length: RECOVERY_LENGTH }, sign).join("");
    return `${code.slice(0, RECOVERY_LENGTH / 2)}-${code.slice(RECOVERY_LENGTH / 2)}`;
  });
}

/** A recovery code as it is compared, however it is typed. */
export function plainRecovery(code: string): string {
  return code.toLowerCase().replace(/[\s-]/g, "");
}

function totp(secret: string, label: string): TOTP {
  return new TOTP({
    issuer: "Map Rope",
    label,
    algorithm: "SHA1",
    digits: DIGITS,
    period: PERIOD_S,
    secret: Secret.fromBase32(secret),
  });
}
