import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { buildLink, hasLeftOver, type LinkTerms } from "./build-link.ts";
import { recogniser, type Recognisable } from "./recognise.ts";
import { fillSubId, subIdFault, subIdPatternFault } from "./sub-id.ts";
import { readTemplate, type LinkTemplate } from "./template.ts";

const AROUND = "https://go.saltmarsh.example/c/{id}/harbour?to={destination}&sub={sub}";
const ONTO = "{destination}?partner={id}&label=ll-{sub}";

function templateOf(text: string): LinkTemplate {
  const read = readTemplate(text);
  assert.ok(read.ok, read.ok ? "" : read.reason);
  return read.template;
}
function terms(more: Partial<LinkTerms> = {}): LinkTerms {
  return {
    name: "Harbour Optics",
    template: templateOf(AROUND),
    trackingId: "LL-2291",
    domains: ["harbour.example", "*.harbour.example"],
    subIdLimit: 30,
    ...more,
  };
}

describe("a link template", () => {
  test("that could not work is refused with the reason", () => {
    for (const [text, reason] of [
      ["", /empty/],
      ["https://go.example/c/{id}", /no \{destination\}/],
      ["https://go.example/c?to={destination}", /no \{id\}/],
      ["https://go.example/{account}/{id}?to={destination}", /“\{account\}” is no placeholder/],
      ["https://go.example/{id}?to={destination}&more={destination}", /twice/],
      ["https://{id}.example/?to={destination}", /host is fixed/],
      ["https://go.example@{destination}/{id}", /host is fixed/],
      ["https://go.example{destination}/{id}", /host is fixed/],
      ["go.example/{id}?to={destination}", /web address with its host/],
      ["javascript:alert({id})//{destination}", /web address/],
      ["https://go.example/{id}?to={destination}#{sub}", /never sent/],
      ["https://go.example/{id}{sub}?to={destination}", /at most one/],
      ["https://go.example/?{id}={destination}", /name is fixed/],
      ["https://go.example/{id}?a=1&a=2&to={destination}", /twice/],
      ["https://go.example/{id}?to={destination}}", /brace/],
      ["{destination}/{id}", /stand parameters/],
    ] as const) {
      const read = readTemplate(text);
      assert.ok(!read.ok, text);
      assert.match(read.reason, reason, text);
    }
  });

  test("is taken apart into host, path and parameters", () => {
    assert.deepEqual(templateOf(AROUND), {
      style: "wrapper",
      text: AROUND,
      host: "go.saltmarsh.example",
      path: ["c", { before: "", holds: "id", after: "" }, "harbour"],
      parameters: [
        ["to", { before: "", holds: "destination", after: "" }],
        ["sub", { before: "", holds: "sub", after: "" }],
      ],
    });
  });
});

describe("a tracked link", () => {
  test("is built from the template, with the destination whole inside it", () => {
    assert.deepEqual(
      buildLink(terms(), "https://www.harbour.example/item/8?colour=red&x=1#top", "reviews-1"),
      {
        ok: true,
        address:
          "https://go.saltmarsh.example/c/LL-2291/harbour?to=https%3A%2F%2Fwww.harbour.example%2Fitem%2F8%3Fcolour%3Dred%26x%3D1%23top&sub=reviews-1",
      },
    );
    assert.deepEqual(
      buildLink(terms({ template: templateOf(ONTO) }), "https://harbour.example/item/8?x=1#top", "r"),
      {
        ok: true,
        address: "https://harbour.example/item/8?x=1&partner=LL-2291&label=ll-r#top",
      },
    );
    const bare = buildLink(terms(), "https://harbour.example/", "");
    assert.ok(bare.ok && !bare.address.includes("sub="), "no label, no empty parameter");
  });

  test("that would earn nothing is refused with the reason and its field", () => {
    const onto = templateOf(ONTO);
    const long = `https://harbour.example/${"a".repeat(2100)}`;
    for (const [more, destination, subId, code, field] of [
      [{}, "https://other.example/", "", "host", "destination"],
      [{}, "harbour.example/item", "", "address", "destination"],
      [{ trackingId: "" }, "https://harbour.example/", "", "id", "program"],
      [{ trackingId: "YOUR_ID" }, "https://harbour.example/", "", "placeholder", "program"],
      [{}, "https://harbour.example/?to={deeplink}", "", "placeholder", "destination"],
      [{}, "https://go.saltmarsh.example/c/LL-2291/harbour?to=x", "", "tracked", "destination"],
      [{ template: onto }, "https://harbour.example/?partner=somebody", "", "tracked", "destination"],
      [{}, "https://harbour.example/item?ref=LL-2291", "", "tracked", "destination"],
      [{}, "https://harbour.example/", "a".repeat(31), "sub-id", "subId"],
      [{}, "https://harbour.example/", "two words", "sub-id", "subId"],
      [{}, long, "", "length", "destination"],
    ] as const) {
      const built = buildLink(terms(more), destination, subId);
      assert.ok(!built.ok, destination);
      assert.deepEqual([built.code, built.field], [code, field], destination);
      assert.ok(built.reason.length > 20);
    }
  });

  test("left-over placeholders are told from what only looks like one", () => {
    for (const text of [
      "{id}",
      "?a={PARTNER_ID}",
      "/YOUR-ID/",
      "?p=your_affiliate_id",
      "[ACCOUNT]",
      "XXXXXX",
      "%7Bid%7D",
    ])
      assert.ok(hasLeftOver(text), text);
    for (const text of ["/item/8", "filter[price]=3", "/yours/identity", "?id=8", "/exxxtra", "/my-idea"])
      assert.ok(!hasLeftOver(text), text);
  });

  const word = fc
    .stringMatching(/^[A-Za-z0-9._~-]{1,12}$/)
    .filter((text) => /[A-Za-z0-9]/.test(text) && !hasLeftOver(text));
  const literal = fc.stringMatching(/^[a-z0-9-]{1,8}$/);
  const template = fc.oneof(
    fc
      .record({ host: literal, path: literal, order: fc.boolean(), before: fc.constantFrom("", "ll-", "é ") })
      .map(({ host, path, order, before }) => {
        const to = "to={destination}";
        const sub = `s=${encodeURIComponent(before)}{sub}`;
        return `https://${host}.go.example/${path}/{id}?${order ? `${to}&${sub}` : `${sub}&${to}`}&k=1`;
      }),
    literal.map((path) => `https://n.go.example/{sub}/${path}-{id}/{destination}`),
    literal.map((name) => `{destination}?q${name}={id}&sub={sub}`),
  );
  const destination = fc
    .record({
      host: fc.constantFrom("shop.example", "www.shop.example", "shop.example:8080"),
      path: fc.array(fc.stringMatching(/^[a-zA-Z0-9._~%-]{1,8}$/), { maxLength: 3 }),
      query: fc.array(fc.tuple(literal, fc.stringMatching(/^[a-zA-Z0-9+%/&=]{0,8}$/)), { maxLength: 3 }),
      end: fc.constantFrom("", "", "?", "&", "&&", "?&"),
      fragment: fc.constantFrom("", "#top", "#a?b"),
    })
    .map(({ host, path, query, end, fragment }) => {
      const asked = query.map(([name, value]) => `w${name}=${value.replace(/[&=]/g, "")}`).join("&");
      const own =
        asked === "" ? end.slice(0, end.startsWith("?") ? 2 : 0) : `?${asked}${end.replace("?", "")}`;
      return `https://${host}/${path.join("/")}${own}${fragment}`;
    })
    .filter((address) => !hasLeftOver(address));

  test("built, it is recognised as the same program's, with the same ID, sub-ID and destination", () => {
    const others = Array.from({ length: 40 }, (_, at): Recognisable => ({
      ...terms({ name: `Other ${at}`, trackingId: `O-${at}`, domains: [`other${at}.example`] }),
      template: templateOf(`https://n.go.example/c/{id}/shop${at}?to={destination}&s={sub}`),
    }));
    fc.assert(
      fc.property(
        template,
        word,
        fc.oneof(word, word, fc.constant("")),
        destination,
        (text, trackingId, subId, to) => {
          const own = terms({
            template: templateOf(text),
            trackingId,
            domains: ["shop.example", "*.shop.example"],
          });
          // An address that has the account in it already is refused (“tracked already”).
          fc.pre(![...new URL(to).searchParams.values()].includes(trackingId));
          const built = buildLink(own, to, subId);
          assert.ok(built.ok, built.ok ? "" : built.reason);
          const found = recogniser<Recognisable>([...others, own])(built.address);
          assert.deepEqual(
            found && [found.program.name, found.tracking, found.trackingId, found.subId, found.destination],
            [own.name, "ours", trackingId, subId === "" ? null : subId, to],
          );
        },
      ),
      { numRuns: 400 },
    );
  });
});

describe("recognising", () => {
  const harbour = terms();
  const fernhill = terms({ name: "Fernhill", template: templateOf(ONTO), domains: ["fernhill.example"] });
  const bare: Recognisable = { ...terms({ name: "Bare", domains: ["bare.example"] }), template: undefined };
  const find = recogniser<Recognisable>([harbour, fernhill, bare]);
  const seen = (address: string): unknown => {
    const found = find(address);
    return found && [found.program.name, found.tracking, found.subId, found.destination];
  };

  test("tells our tracking from somebody else's and from none", () => {
    for (const [address, expected] of [
      [
        "https://go.saltmarsh.example/c/LL-2291/harbour?to=https%3A%2F%2Fharbour.example%2F",
        ["Harbour Optics", "ours", null, "https://harbour.example/"],
      ],
      ["https://GO.saltmarsh.example/c/LL-2291/harbour?sub=a&extra=1", ["Harbour Optics", "ours", "a", null]],
      ["https://go.saltmarsh.example/c/ELSE/harbour?to=x", ["Harbour Optics", "foreign", null, "x"]],
      ["https://go.saltmarsh.example/c/LL-2291/unknown?to=x", undefined],
      ["https://go.saltmarsh.example/", undefined],
      [
        "https://deep.harbour.example/item",
        ["Harbour Optics", "none", null, "https://deep.harbour.example/item"],
      ],
      [
        "https://fernhill.example/?a=1&partner=LL-2291&label=ll-x#b",
        ["Fernhill", "ours", "x", "https://fernhill.example/?a=1#b"],
      ],
      ["https://fernhill.example/?partner=else", ["Fernhill", "foreign", null, "https://fernhill.example/"]],
      [
        "https://fernhill.example/?partner=",
        ["Fernhill", "none", null, "https://fernhill.example/?partner="],
      ],
      ["https://bare.example/x", ["Bare", "none", null, "https://bare.example/x"]],
      ["https://elsewhere.example/", undefined],
      ["/reviews", undefined],
      ["https://", undefined],
    ] as const)
      assert.deepEqual(seen(address), expected, address);
  });
});

describe("a sub-ID", () => {
  test("is made of what is known of the place, without gaps", () => {
    const place = { site: "Low Lantern", page: "/reviews/First Eyepiece", position: 2, text: "Über uns" };
    assert.equal(
      fillSubId("{site}-{page}-{position}-{text}", place),
      "low-lantern-reviews-first-eyepiece-2-uber-uns",
    );
    assert.equal(fillSubId("{page}-{position}", { position: 1 }), "1");
    assert.equal(fillSubId("{page}_{text}", { page: "/a" }), "a");
    assert.equal(fillSubId("", place), "");
  });

  test("patterns and sub-IDs that networks would spoil are refused", () => {
    assert.match(subIdPatternFault("{campaign}")!, /not known/);
    assert.match(subIdPatternFault("{page} {text}")!, /letters, digits/);
    assert.match(subIdPatternFault("{page}}")!, /brace/);
    assert.equal(subIdPatternFault("{page}.{position}"), undefined);
    assert.match(subIdFault("a".repeat(51), 50)!, /51 characters, the program takes 50/);
    assert.match(subIdFault("a b", 50)!, /letters, digits/);
    assert.equal(subIdFault("reviews-1", 50), undefined);
  });
});
