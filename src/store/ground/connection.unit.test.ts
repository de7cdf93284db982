import assert from "node:assert/strict";
import { test } from "node:test";
import { addressesOf, connectingTo, databaseUrlOf, readAddress } from "./connection.ts";

test("an address may name several hosts, each with a port of its own", () => {
  const cases: readonly (readonly [address: string, hosts: [string, number][] | undefined])[] = [
    ["postgres://a:b@one/maprope", [["one", 5432]]],
    [
      "postgresql://one:5433,two/maprope?sslmode=require",
      [
        ["one", 5433],
        ["two", 5432],
      ],
    ],
    [
      "postgres://a:b@[::1]:5433,10.0.0.2:1/x",
      [
        ["[::1]", 5433],
        ["10.0.0.2", 1],
      ],
    ],
    ["postgres://a:b@one,two", undefined],
    ["postgres://a:b@one,/x", undefined],
    ["postgres://a:b@one:0/x", undefined],
    ["postgres://a:b@/x", undefined],
    ["mysql://one/x", undefined],
    ["postgres://one/%", undefined],
  ];
  for (const [address, hosts] of cases)
    assert.deepEqual(
      readAddress(address)?.hosts.map(({ host, port }) => [host, port]),
      hosts,
      address,
    );
  assert.equal(readAddress("postgres://a:b@one,two/m%20r")?.database, "m r");
});

test("a single host is connected to as it is; of several, the first is named and another may be found", () => {
  const single = "postgres://a:b@one:5433/maprope";
  assert.deepEqual(connectingTo(single), { connectionString: single });
  const { connectionString, stream } = connectingTo("postgres://a:b@one:5433,two/maprope?x=1");
  assert.equal(connectionString, "postgres://a:b@one:5433/maprope?x=1");
  assert.equal(typeof stream, "function");
});

test("a pooler stands before a database whose own address is known", () => {
  const [pooler, own] = ["postgres://pooler:6432/m", "postgres://db:5432/m"];
  assert.deepEqual(addressesOf(databaseUrlOf(pooler, own)), { usual: pooler, direct: own, isPooled: true });
  for (const direct of [undefined, own])
    assert.deepEqual(addressesOf(databaseUrlOf(own, direct)), { usual: own, direct: own, isPooled: false });
});
