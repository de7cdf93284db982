import { createCipheriv, createDecipheriv, createHash, hkdfSync, randomBytes } from "node:crypto";

/** Locks up what must not be readable in the database, with keys that stand outside it. */
export interface Seal {
  /** Encrypts with the newest key. `about` is bound to it: moved to another object it does not open. */
  close(text: string, about: string): string;
  /** Opens what any of the keys closed; undefined when none of them did, or somebody changed it. */
  open(sealed: string, about: string): string | undefined;
  /** True when it was closed with a key that is not the newest any more. */
  isOld(sealed: string): boolean;
}

const ALGORITHM = "aes-256-gcm";
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/**
 * Authenticated encryption (AES-256-GCM, NIST SP 800-38D) under keys derived from the secrets (HKDF, RFC 5869), the
 * newest first. Each text says which key it needs: after a change of the secret the earlier one still opens, until all
 * has been sealed anew.
 */
export function sealWith(secrets: readonly string[]): Seal {
  const keys = secrets.map((secret) => {
    const key = Buffer.from(hkdfSync("sha256", secret, "", "map-rope credentials", 32));
    return { key, name: createHash("sha256").update(key).digest("base64url").slice(0, 8) };
  });
  const [newest] = keys;
  if (!newest) throw new Error("There is no secret to seal with.");
  return {
    close(text, about) {
      const nonce = randomBytes(NONCE_BYTES);
      const cipher = createCipheriv(ALGORITHM, newest.key, nonce).setAAD(Buffer.from(about));
      const closed = Buffer.concat([nonce, cipher.update(text, "utf8"), cipher.final(), cipher.getAuthTag()]);
      return `${newest.name}.${closed.toString("base64url")}`;
    },
    open(sealed, about) {
      const [name, body = ""] = sealed.split(".");
      const bytes = Buffer.from(body, "base64url");
      const key = keys.find((one) => one.name === name)?.key;
      if (!key || bytes.length < NONCE_BYTES + TAG_BYTES) return undefined;
      const end = bytes.length - TAG_BYTES;
      const opener = createDecipheriv(ALGORITHM, key, bytes.subarray(0, NONCE_BYTES))
        .setAAD(Buffer.from(about))
        .setAuthTag(bytes.subarray(end));
      try {
        return opener.update(bytes.subarray(NONCE_BYTES, end), undefined, "utf8") + opener.final("utf8");
      } catch {
        // The tag does not fit: the text was changed, or belongs to something else.
        return undefined;
      }
    },
    isOld: (sealed) => sealed.split(".")[0] !== newest.name,
  };
}
