import assert from "node:assert/strict";
import { describe, test } from "node:test";
import type { z } from "zod";
import { clicksQuestionSchema } from "../clicks/clicks.ts";
import { hostName, pathFault, splitOwnAddress } from "./fields.ts";
import { pageInputSchema } from "../pages/page.ts";
import { signInSchema } from "../people/person.ts";
import { tokenInputSchema } from "../people/token.ts";
import { routeInputSchema } from "../routes/route.ts";
import { siteInputSchema } from "../sites/site.ts";

const ROUTE = { kind: "short", address: "/dob", destination: "https://shop.example/" };
const PAGE = { path: "/a", title: "A", html: "<p>a</p>" };
const SITE = { key: "garden", name: "Garden", hosts: [{ name: "garden.example", role: "primary" }] };

interface Refusal {
  schema: z.ZodType;
  input: unknown;
  path: string;
  says: RegExp;
}

const refusals: readonly Refusal[] = [
  {
    schema: routeInputSchema,
    input: { ...ROUTE, kind: "detour" },
    path: "kind",
    says: /short, redirect or gone/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, address: "dob" },
    path: "address",
    says: /starts with one slash/,
  },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/a b" }, path: "address", says: /hyphen/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/a?b" }, path: "address", says: /query/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/a\r\nb" }, path: "address", says: /line break/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/a%0d%0ab" }, path: "address", says: /control/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/a/../b" }, path: "address", says: /segments/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/%2e%2e/b" }, path: "address", says: /segments/ },
  { schema: routeInputSchema, input: { ...ROUTE, address: "/50%" }, path: "address", says: /%25/ },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, address: `/${"x".repeat(1024)}` },
    path: "address",
    says: /1,024/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, destination: "javascript:alert(1)" },
    path: "destination",
    says: /http, https/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, destination: "data:text/html,x" },
    path: "destination",
    says: /http, https/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, destination: "https://a.example/\nb" },
    path: "destination",
    says: /line break/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, destination: "mailto:a@b.example" },
    path: "destination",
    says: /cannot be redirected/,
  },
  { schema: routeInputSchema, input: { ...ROUTE, destination: 7 }, path: "destination", says: /text/ },
  { schema: routeInputSchema, input: { ...ROUTE, status: 204 }, path: "status", says: /301, 302/ },
  { schema: routeInputSchema, input: { ...ROUTE, status: "soon" }, path: "status", says: /./ },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, query: "keep" },
    path: "query",
    says: /drop, forward or merge/,
  },
  { schema: routeInputSchema, input: { ...ROUTE, match: "fuzzy" }, path: "match", says: /exact, by prefix/ },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, match: "wildcard" },
    path: "address",
    says: /has a \*/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, match: "pattern", address: "/(?=x)" },
    path: "address",
    says: /Look-ahead/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, parameters: "a=1&&b=2" },
    path: "parameters",
    says: /has a name/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, notice: { seconds: 0, text: "" } },
    path: "notice.seconds",
    says: /at least one second/,
  },
  { schema: routeInputSchema, input: { ...ROUTE, title: "a\nb" }, path: "title", says: /one line/ },
  { schema: routeInputSchema, input: { ...ROUTE, title: "x".repeat(301) }, path: "title", says: /300/ },
  { schema: routeInputSchema, input: { ...ROUTE, host: "no host" }, path: "host", says: /host name/ },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, aliases: ["/ok", "bad"] },
    path: "aliases.1",
    says: /slash/,
  },
  {
    schema: routeInputSchema,
    input: { ...ROUTE, validFrom: "tomorrow" },
    path: "validFrom",
    says: /ISO 8601/,
  },
  { schema: routeInputSchema, input: { ...ROUTE, colour: "red" }, path: "", says: /colour/ },
  { schema: pageInputSchema, input: { ...PAGE, title: " " }, path: "title", says: /missing/ },
  { schema: pageInputSchema, input: { ...PAGE, path: "//a" }, path: "path", says: /one slash/ },
  {
    schema: pageInputSchema,
    input: { ...PAGE, html: "x".repeat(5_000_001) },
    path: "html",
    says: /5,000,000/,
  },
  {
    schema: pageInputSchema,
    input: { path: "/a", title: "A", body: { type: "doc", content: [{ type: "iframe" }] } },
    path: "body",
    says: /cannot|can hold/,
  },
  {
    schema: pageInputSchema,
    input: { path: "/a", title: "A", body: "text" },
    path: "body",
    says: /can hold/,
  },
  { schema: siteInputSchema, input: { ...SITE, key: "No Key" }, path: "key", says: /lower-case/ },
  { schema: siteInputSchema, input: { ...SITE, hosts: [] }, path: "hosts", says: /at least one/ },
  ...[
    "localhost",
    "127.0.0.1",
    "0x7f.1",
    "2130706433",
    "[::1]",
    "*.garden.example",
    "co.uk",
    "gov.au",
    "garden",
    "-a.example",
    "a..example",
  ].map((name) => ({
    schema: siteInputSchema,
    input: { ...SITE, hosts: [{ name, role: "primary" }] },
    path: "hosts.0.name",
    says: /host|address|wildcard|machine|everybody/,
  })),
  ...["api", "sign-in", "session", "healthz"].map((key) => ({
    schema: siteInputSchema,
    input: { ...SITE, key },
    path: "key",
    says: /another key/,
  })),
  {
    schema: siteInputSchema,
    input: { ...SITE, hosts: [{ name: "a.example", role: "short" }] },
    path: "hosts",
    says: /primary/,
  },
  {
    schema: siteInputSchema,
    input: { ...SITE, hosts: [...SITE.hosts, { name: "GARDEN.example", role: "other" }] },
    path: "hosts",
    says: /once/,
  },
  { schema: siteInputSchema, input: { ...SITE, shortPrefix: "to" }, path: "shortPrefix", says: /slash/ },
  { schema: signInSchema, input: { email: "nobody", password: "x" }, path: "email", says: /mail address/ },
  { schema: tokenInputSchema, input: { name: "", role: "owner" }, path: "name", says: /missing/ },
  { schema: clicksQuestionSchema, input: { from: "yesterday" }, path: "from", says: /2026-11-23/ },
  {
    schema: clicksQuestionSchema,
    input: { from: "2026-11-02", to: "2026-11-01" },
    path: "from",
    says: /after the last/,
  },
  { schema: clicksQuestionSchema, input: { by: "mood" }, path: "by", says: /day, route/ },
];

describe("what is wrong is refused at its field, in words", () => {
  for (const { schema, input, path, says } of refusals) {
    test(`${path}: ${JSON.stringify(input).slice(0, 90)}`, () => {
      const result = schema.safeParse(input);
      assert.ok(!result.success);
      const issue = result.error.issues.find((one) => one.path.join(".") === path);
      assert.ok(issue, `no message at “${path}”: ${JSON.stringify(result.error.issues)}`);
      assert.match(issue.message, says);
    });
  }
});

describe("what can be made right is", () => {
  test("a destination is repaired on the way in", () => {
    assert.equal(
      routeInputSchema.parse({ ...ROUTE, destination: " http://https://shop.example/?a=1&amp;b=2" })
        .destination,
      "https://shop.example/?a=1&b=2",
    );
  });
  test("a status may come as text, as forms and CSV send it", () =>
    assert.equal(routeInputSchema.parse({ ...ROUTE, status: "307" }).status, 307));
  test("a host is put in its ASCII form, without port", () => {
    assert.equal(hostName.parse("MÜNCHEN.example:8080"), "xn--mnchen-3ya.example");
  });
  test("an address with one of our hosts in front is taken apart", () => {
    assert.deepEqual(splitOwnAddress("lntn.example/Dob?x", ["lntn.example"]), {
      host: "lntn.example",
      path: "/Dob",
    });
    assert.deepEqual(splitOwnAddress("http://lntn.example:4601/dob", ["lntn.example"]), {
      host: "lntn.example",
      path: "/dob",
    });
    assert.deepEqual(splitOwnAddress("https://shop.example/dob", ["lntn.example"]), {
      path: "https://shop.example/dob",
    });
    assert.deepEqual(splitOwnAddress(" /dob ", ["lntn.example"]), { path: "/dob" });
  });
  test("a pattern keeps its signs behind a host of ours", () => {
    for (const front of ["lntn.example", "https://lntn.example", "http://lntn.example:4601"])
      assert.deepEqual(splitOwnAddress(`${front}/(\\d+)/[a-z]+`, ["lntn.example"], true), {
        host: "lntn.example",
        path: "/(\\d+)/[a-z]+",
      });
    assert.deepEqual(splitOwnAddress("/(\\d+)/x", ["lntn.example"], true), { path: "/(\\d+)/x" });
  });
  test("another's address is named as what it is", () =>
    assert.match(pathFault("https://shop.example/dob")!, /shop\.example is no host of this site/));
  test("paths in any script are fine", () => {
    for (const path of ["/", "/straße", "/привет", "/🔭", "/a-b_c.d~e", "/%C3%A4"])
      assert.equal(pathFault(path), undefined, path);
  });
});
