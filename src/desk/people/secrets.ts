import { createHash, randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from "node:crypto";

const COST: ScryptOptions = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };
const KEY_BYTES = 32;

/** Hashes a password with scrypt (RFC 7914); cost and salt stand in the text, so that they can be raised later. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const key = await derive(password, salt, COST);
  return ["scrypt", COST.N, COST.r, COST.p, salt.toString("base64url"), key.toString("base64url")].join("$");
}

/** True when the password is the hashed one. */
export async function verifyPassword(password: string, hash: string): Promise<boolean> {
  const [scheme, N, r, p, salt, key] = hash.split("$");
  if (scheme !== "scrypt" || !salt || !key) return false;
  const expected = Buffer.from(key, "base64url");
  const derived = await derive(password, Buffer.from(salt, "base64url"), {
    N: Number(N),
    r: Number(r),
    p: Number(p),
    maxmem: COST.maxmem,
  });
  return timingSafeEqual(derived, expected);
}

/** A new secret of 256 bits that is safe in URLs and headers. */
export function newSecret(): string {
  return randomBytes(KEY_BYTES).toString("base64url");
}

/** What is stored of a session or API token: enough to recognise it, too little to use it. */
export function tokenHash(token: string): string {
  return createHash("sha256").update(token).digest("base64url");
}

function derive(password: string, salt: Buffer, cost: ScryptOptions): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    scrypt(password.normalize("NFKC"), salt, KEY_BYTES, cost, (error, key) =>
      error ? reject(error) : resolve(key),
    );
  });
}
