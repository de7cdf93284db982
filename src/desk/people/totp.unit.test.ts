import assert from "node:assert/strict";
import { test } from "node:test";
import { Secret } from "otpauth";
import { newRecoveryCodes, newTotpSecret, plainRecovery, stepOf, totpAddress } from "./totp.ts";

// RFC 6238, appendix B, with six digits: the last of its eight.
const SECRET = Secret.fromLatin1("12345678901234567890").base32;
const VECTORS: readonly (readonly [seconds: number, code: string])[] = [
  [59, "287082"],
  [1_111_111_109, "081804"],
  [1_111_111_111, "050471"],
  [1_234_567_890, "005924"],
  [2_000_000_000, "279037"],
  [20_000_000_000, "353130"],
];

test("codes are those of RFC 6238, and tell their step", () => {
  for (const [seconds, code] of VECTORS)
    assert.equal(stepOf(SECRET, code, seconds * 1000), Math.floor(seconds / 30), code);
});

test("the step before and the one behind count, no other; spaces do not matter, other signs do", () => {
  const at = (seconds: number): number | undefined => stepOf(SECRET, "005924", seconds * 1000);
  const step = Math.floor(1_234_567_890 / 30);
  const start = step * 30;
  assert.deepEqual([at(start - 1), at(start), at(start + 29), at(start + 59)], [step, step, step, step]);
  assert.deepEqual([at(start - 31), at(start + 60)], [undefined, undefined]);
  assert.equal(stepOf(SECRET, " 005 924 ", start * 1000), step);
  for (const wrong of ["", "005925", "5924", "0059240", "٠٠٥٩٢٤", "00592a"])
    assert.equal(stepOf(SECRET, wrong, start * 1000), undefined, wrong);
});

test("a secret is 160 bits in Base32, and stands in the address that an app reads", () => {
  const secret = newTotpSecret();
  assert.match(secret, /^[A-Z2-7]{32}$/);
  assert.notEqual(secret, newTotpSecret());
  const address = new URL(totpAddress(secret, "ida@garden.example"));
  assert.deepEqual(
    [address.protocol, address.host, address.searchParams.get("secret"), address.searchParams.get("issuer")],
    ["otpauth:", "totp", secret, "Map Rope"],
  );
});

test("recovery codes are ten, different, and compared however they are typed", () => {
  const codes = newRecoveryCodes();
  assert.equal(new Set(codes).size, 10);
  for (const code of codes) {
    assert.match(code, /^[a-hjkmnp-z2-9]{5}-[a-hjkmnp-z2-9]{5}$/);
    assert.equal(plainRecovery(` ${code.toUpperCase().replace("-", " ")} `), plainRecovery(code));
  }
});
