import assert from "node:assert/strict";
import { test } from "node:test";
import { readNetworks } from "./networks.ts";

test("addresses are in the networks that are named, however they are written", () => {
  const isIn = readNetworks("10.0.0.0/8, 192.168.1.7 fd00::/8");
  for (const address of ["10.1.2.3", "192.168.1.7", "fd12::1", "::ffff:10.0.0.1"])
    assert.ok(isIn(address), address);
  for (const address of ["11.0.0.1", "192.168.1.8", "fe80::1", "nonsense", ""])
    assert.ok(!isIn(address), address);
});

test("none are in none; what is no network is named", () => {
  assert.equal(readNetworks("")("10.0.0.1"), false);
  assert.throws(() => readNetworks("10.0.0.0/8 here"), /“here” is no address or network/);
});
