import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { proxyTrust } from "./proxy-trust.ts";

const cases: readonly (readonly [
  setting: string | undefined,
  remote: string,
  forwarded: string,
  reader: string,
])[] = [
  [undefined, "192.0.2.1", "203.0.113.7", "192.0.2.1"],
  ["0", "192.0.2.1", "203.0.113.7", "192.0.2.1"],
  ["1", "192.0.2.1", "203.0.113.7", "203.0.113.7"],
  ["1", "192.0.2.1", "10.9.9.9, 203.0.113.7", "203.0.113.7"],
  ["2", "192.0.2.1", "10.9.9.9, 203.0.113.7, 192.0.2.2", "203.0.113.7"],
  ["2", "192.0.2.1", "203.0.113.7", "203.0.113.7"],
  ["1", "192.0.2.1", "", "192.0.2.1"],
  ["192.0.2.0/24", "192.0.2.1", "10.9.9.9, 203.0.113.7, 192.0.2.9", "203.0.113.7"],
  ["192.0.2.0/24", "198.51.100.1", "203.0.113.7", "198.51.100.1"],
  ["loopback, fd00::/8", "::1", "203.0.113.7, fd00::5", "203.0.113.7"],
  ["loopback", "::ffff:127.0.0.1", "203.0.113.7", "203.0.113.7"],
];

describe("whose word of a reader's address is taken", () => {
  for (const [setting, remote, forwarded, reader] of cases)
    test(`${setting ?? "nothing set"}: ${forwarded || "nothing"} said by ${remote}`, () =>
      assert.equal(proxyTrust(setting).address(remote, forwarded), reader));
  test("https is believed of a proxy of ours alone", () => {
    assert.equal(proxyTrust("1").isSecure("192.0.2.1", "https"), true);
    assert.equal(proxyTrust("192.0.2.0/24").isSecure("198.51.100.1", "https"), false);
    assert.equal(proxyTrust(undefined).isSecure("192.0.2.1", "https"), false);
    assert.equal(proxyTrust("1").isSecure("192.0.2.1", "http"), false);
  });
  test("what is no setting is one plain sentence", () => {
    for (const setting of ["99", "yes", "10.0.0.0/99", "proxy.example"])
      assert.throws(() => proxyTrust(setting), /^Error: MAPROPE_TRUST_PROXY is .*\.$/);
  });
});
