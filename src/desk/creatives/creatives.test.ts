import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { deskWithProgram } from "../../../tests/support/program.ts";
import type { TestDesk } from "../../../tests/support/desk.ts";

const AT = "/sites/garden";
const GO = "https://go.saltmarsh.example/c";
const BANNER = `<a href="${GO}/{id}/harbour?to=x"><img src="https://cdn.example/b.png" width="300" height="250" alt="Spring"></a><script>x()</script>`;
const TEXT = `<a href="${GO}/{id}/harbour?to=https%3A%2F%2Fharbour.example%2F&amp;sub={sub}">Lamps for dark paths</a>`;

let garden: TestDesk;
let at: string;
before(async () => {
  const made = await deskWithProgram();
  garden = made.garden;
  at = `${AT}/programs/${made.harbour.id}/creatives`;
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const written = async (id: string): Promise<string> =>
  (await garden.call("GET", `${AT}/pages/${id}`)).body.html;
const newPage = async (path: string, html: string): Promise<string> =>
  (await garden.call("POST", `${AT}/pages`, { path, title: path.slice(1), html, publish: true })).body.id;

describe("a creative", () => {
  test("is kept whole, used without its scripts and filled from the account, and knows where it stands", async () => {
    const made = await garden.call("POST", at, { name: "Spring", html: BANNER });
    assert.deepEqual([made.status, made.body.kind, made.body.leftOut], [201, "banner", ["a script"]]);
    assert.equal(made.body.html, BANNER);
    assert.equal(
      made.body.filled.html,
      `<a href="${GO}/GD-7/harbour?to=x" data-creative="${made.body.id}"><img src="https://cdn.example/b.png" alt="Spring" width="300" height="250"></a>`,
    );
    await newPage("/spring", `<p>${made.body.filled.html}</p>`);
    await newPage("/other", `<p><a href="${GO}/GD-7/harbour?to=x">the same address, by hand</a></p>`);
    const { body } = await garden.call("GET", at);
    assert.deepEqual(
      body.items[0].uses.map(({ title }: { title: string }) => title),
      ["spring"],
    );
    assert.equal((await garden.call("DELETE", `${AT}/creatives/${made.body.id}`)).status, 204);
    assert.equal((await garden.call("GET", at)).body.total, 0);
    assert.equal((await garden.call("POST", `${AT}/creatives/${made.body.id}/restore`)).status, 204);
    assert.equal((await garden.call("GET", at)).body.total, 1);
  });

  test("that is no link, or has a place left to fill in, says so", async () => {
    const refused = await garden.call("POST", at, {
      name: "Ad",
      html: "<script src='https://ads.example/x.js'></script>",
    });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "html"]);
    const open = await garden.call("POST", at, {
      name: "Open",
      html: '<a href="https://go.saltmarsh.example/c/YOUR_ID/harbour">x</a>',
    });
    assert.deepEqual([open.body.filled, /placeholder was left/.test(open.body.fault)], [null, true]);
    const placed = await garden.call("POST", `${AT}/creatives/${open.body.id}/place`, {});
    assert.deepEqual([placed.status, /placeholder was left/.test(placed.body.detail)], [422, true]);
    assert.equal((await garden.call("DELETE", `${AT}/creatives/nonsense`)).status, 404);
    await garden.call("DELETE", `${AT}/creatives/${open.body.id}`);
  });

  test("is changed once, and every place follows: label, override, own words and own pictures stay", async () => {
    const { body: made } = await garden.call("POST", at, { name: "Line", html: TEXT });
    const place = async (page: string) =>
      (await garden.call("POST", `${AT}/creatives/${made.id}/place`, { page })).body;
    const paths = await newPage("/paths", "<p>x</p>");
    const first = await place(paths);
    const second = await place(await newPage("/gates", "<p>x</p>"));
    assert.deepEqual([first.subId, second.subId], ["paths-1", "gates-1"]);
    assert.equal(
      first.html,
      `<a href="${GO}/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2F&amp;sub=paths-1" data-creative="${made.id}">Lamps for dark paths</a>`,
    );
    const own = (html: string): string => html.replace("Lamps for dark paths", "my own words");
    const byHand = (html: string): string =>
      html.replace("data-creative", 'data-override="nofollow=off" data-creative');
    const picture = (html: string): string =>
      html.replace("Lamps for dark paths", '<img src="/mine.png" alt="mine">');
    await garden.call("PUT", `${AT}/pages/${paths}`, {
      version: 1,
      html: `<p>See ${byHand(first.html)} and ${own(second.html)}.</p><figure>${picture(first.html)}</figure>`,
    });

    const html = TEXT.replace("Lamps for dark paths", "Lamps, in autumn too").replace(
      "%2F&amp;",
      "%2Fautumn&amp;",
    );
    const seen = await garden.call("POST", `${AT}/links/bulk`, {
      action: { do: "creative", creative: made.id, html },
      dryRun: true,
    });
    assert.deepEqual([seen.body.links, seen.body.batch], [3, null]);
    assert.match(seen.body.changes[0].after, /autumn.*sub=paths-1 · “Lamps, in autumn too”/);

    const done = await garden.call("PUT", `${AT}/creatives/${made.id}`, { name: "Line", html, version: 1 });
    assert.deepEqual([done.status, done.body.creative.version, done.body.places.links], [200, 2, 3]);
    const now = await written(paths);
    const link = (sub: string, more = ""): string =>
      `<a href="${GO}/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2Fautumn&amp;sub=${sub}"${more} data-creative="${made.id}">`;
    assert.equal(
      now,
      `<p>See ${link("paths-1", ' data-override="nofollow=off"')}Lamps, in autumn too</a> and ${link("gates-1")}my own words</a>.</p><figure>${link("paths-1")}<img src="/mine.png" alt="mine"></a></figure>`,
    );
    await garden.call("POST", `${AT}/links/bulk/${done.body.places.batch}/undo`);
    assert.match(await written(paths), /dark paths/);

    const late = await garden.call("PUT", `${AT}/creatives/${made.id}`, { name: "Line", html, version: 1 });
    assert.deepEqual([late.status, late.body.current.version], [409, 2]);
    const bad = await garden.call("PUT", `${AT}/creatives/${made.id}`, {
      name: "Line",
      html: "x",
      version: 2,
    });
    assert.deepEqual([bad.status, bad.body.errors[0].path], [422, "html"]);
  });

  test("that is not built as the template says keeps the label of its place, too", async () => {
    const html = '<a href="https://go.saltmarsh.example/banners/{id}/7?place={sub}&amp;x=1">Lanterns</a>';
    const { body: made } = await garden.call("POST", at, { name: "Other shape", html });
    const page = await newPage("/lanterns", "<p>x</p>");
    const { body: placed } = await garden.call("POST", `${AT}/creatives/${made.id}/place`, { page });
    await garden.call("PUT", `${AT}/pages/${page}`, { version: 1, html: `<p>${placed.html}</p>` });
    await garden.call("PUT", `${AT}/creatives/${made.id}`, {
      name: "Other shape",
      html: html.replace("/7?", "/8?"),
      version: 1,
    });
    assert.equal(
      await written(page),
      `<p><a href="https://go.saltmarsh.example/banners/GD-7/8?place=lanterns-1&amp;x=1" data-creative="${made.id}">Lanterns</a></p>`,
    );
    await garden.call("DELETE", `${AT}/creatives/${made.id}`);
  });

  test("of any joined program is offered for a text", async () => {
    const { body } = await garden.call("GET", `${AT}/creatives`);
    assert.deepEqual(
      body.items.map(({ name, program }: { name: string; program: { name: string } }) => [
        name,
        program.name,
      ]),
      [
        ["Line", "Harbour Optics"],
        ["Spring", "Harbour Optics"],
      ],
    );
  });
});

describe("a program that closes", () => {
  test("leaves words where its links stood, short ones too; its short links go on without tracking", async () => {
    const tracked = `${GO}/GD-7/harbour?to=https%3A%2F%2Fharbour.example%2Fitem&amp;sub=bye-1`;
    const { body: route } = await garden.call("POST", `${AT}/routes`, {
      kind: "short",
      host: "gdn.example",
      address: "/item",
      destination: tracked.replaceAll("&amp;", "&"),
    });
    const before = `<p><a href="${tracked}">the <em>lamp</em></a>, <a href="https://gdn.example/item" data-override="sponsored=on">short</a>, <a href="https://harbour.example/">plain</a>.</p><figure><a href="${tracked}"><img src="/lamp.png" alt="lamp"></a></figure>`;
    const page = await newPage("/bye", before);
    const items = [
      { id: "a", label: "Lamps", kind: "address", address: tracked.replaceAll("&amp;", "&"), children: [] },
    ];
    const { version } = (await garden.call("GET", `${AT}/navigation`)).body;
    assert.equal((await garden.call("PUT", `${AT}/navigation`, { version, items })).status, 200);

    const [{ id: program }] = (await garden.call("GET", `${AT}/programs`)).body.items;
    const action = { do: "program", program, become: "unlink" };
    const { body: seen } = await garden.call("POST", `${AT}/links/bulk`, { action, dryRun: true });
    const ofBye = seen.changes.filter(({ where }: { where: string }) => where === "/bye");
    assert.deepEqual(
      ofBye.map(({ words, after }: { words: string; after: string }) => [words, after]),
      ["the lamp", "short", "lamp"].map((words) => [words, "words without a link"]),
    );
    const { body: done } = await garden.call("POST", `${AT}/links/bulk`, { action, published: true });
    assert.equal(
      await written(page),
      '<p>the <em>lamp</em>, short, <a href="https://harbour.example/">plain</a>.</p><figure><img src="/lamp.png" alt="lamp"></figure>',
    );
    const { body: after } = await garden.call("GET", `${AT}/routes/${route.id}`);
    assert.equal(after.destination, "https://harbour.example/item");
    const { body: navigation } = await garden.call("GET", `${AT}/navigation`);
    assert.deepEqual(navigation.items, [{ id: "a", label: "Lamps", kind: "heading", children: [] }]);

    await garden.call("POST", `${AT}/links/bulk/${done.batch}/undo`);
    assert.equal(await written(page), before);
    assert.equal((await garden.call("GET", `${AT}/navigation`)).body.items[0].address, items[0]!.address);
  });
});
