import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { strToU8, zipSync } from "fflate";
import { testDesk, type Answered, type TestDesk } from "../../../tests/support/desk.ts";

// The smallest picture there is: one transparent pixel.
export const PNG = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==",
  "base64",
);
const SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><path d="M0 0h40v30H0z"/></svg>';

let garden: TestDesk;
before(async () => {
  garden = await testDesk();
});
after(async () => {
  assert.deepEqual(garden.failures, []);
  await garden.close();
});

const upload = (name: string, content: string | Uint8Array): Promise<Answered> =>
  garden.call("POST", `/sites/garden/files?name=${encodeURIComponent(name)}`, undefined, {
    raw: typeof content === "string" ? content : new Uint8Array(content),
  });

describe("files are judged by their content", () => {
  test("a picture is kept with its size, under a path of its name", async () => {
    const { status, body } = await upload("Größe der Linse (1).PNG", PNG);
    assert.equal(status, 201);
    assert.deepEqual(
      [body.path, body.mediaType, body.width, body.height, body.bytes, body.uses],
      ["/files/gro-e-der-linse-1.png", "image/png", 1, 1, PNG.length, 0],
    );
    assert.equal((await upload("other name.png", PNG)).body.path, body.path, "the same content is kept once");
  });
  test("another file of the same name gets a number", async () => {
    assert.equal((await upload("notes.txt", "one")).body.path, "/files/notes.txt");
    assert.equal((await upload("notes.txt", "two")).body.path, "/files/notes-2.txt");
  });
  test("an SVG that can only be looked at is taken", async () =>
    assert.equal((await upload("drawing.svg", SVG)).body.mediaType, "image/svg+xml"));

  const refused: readonly (readonly [name: string, content: string | Uint8Array, message: RegExp])[] = [
    ["photo.png", "hello", /called a picture, but its content is text/],
    ["photo.jpg", Buffer.from("%PDF-1.7\n1 0 obj"), /called a picture, but its content is PDF/],
    ["empty.png", "", /is empty/],
    ["page.html", "<!doctype html><script>alert(1)</script>", /HTML, which could run scripts/],
    ["run.exe", Buffer.from("MZ\x90\0\x03\0\0\0", "latin1"), /can be uploaded/],
    ["a.svg", SVG.replace("<path", "<script>alert(1)</script><path"), /the element <script>/],
    ["a.svg", SVG.replace("<path", '<path onclick="alert(1)"'), /event handler onclick/],
    ["a.svg", SVG.replace("<path", '<a href="javascript:alert(1)"/><path'), /the element <a>/],
    ["a.svg", SVG.replace("<path", '<use href="https://away.example/x.svg#a"/><path'), /the address/],
    [
      "a.svg",
      SVG.replace("<path", "<foreignObject><p>x</p></foreignObject><path"),
      /the element <foreignObject>/,
    ],
    [
      "a.svg",
      `<!DOCTYPE svg [<!ENTITY x "y">]>${SVG}`,
      /entity declaration|can be uploaded|called a picture/,
    ],
    [
      "a.svg",
      SVG.replace("<path", "<style>@import url(https://away.example/x.css)</style><path"),
      /fetches from elsewhere/,
    ],
    ["a.svg", SVG.replace("<path", '<image href="https://away.example/x.png"/><path'), /the element <image>/],
  ];
  for (const [name, content, message] of refused) {
    test(`${name}: ${message.source}`, async () => {
      const { status, type, body } = await upload(name, content);
      assert.deepEqual([status, type], [422, "application/problem+json"]);
      assert.match(body.detail, message);
      assert.equal(body.errors[0].path, "file");
    });
  }
  test("without a name, or too large, it is refused", async () => {
    assert.equal((await garden.call("POST", "/sites/garden/files", undefined, { raw: "x" })).status, 400);
    assert.equal((await upload("big.txt", new Uint8Array(25_000_001))).status, 413);
  });
});

describe("a file in use", () => {
  test("names the pages and blocks that use it, and is deleted and brought back", async () => {
    const { body: file } = await upload("used.txt", "used words");
    const html = `<p><a href="${file.path}">our list</a></p>`;
    await garden.call("POST", "/sites/garden/pages", { path: "/user", title: "User", html });
    await garden.call("POST", "/sites/garden/pages", {
      path: "/not",
      title: "Not",
      html: html.replace(".txt", ".txt2"),
    });
    await garden.call("POST", "/sites/garden/blocks", {
      title: "Foot",
      placement: { place: "footer", shown: "all", on: [] },
      html: html.replace("/files", "https://garden.example/files"),
    });
    const uses = (await garden.call("GET", `/sites/garden/files/${file.id}/uses`)).body.items;
    assert.deepEqual(
      uses.map(({ title, kind }: { title: string; kind: string }) => [title, kind]),
      [
        ["Foot", "block"],
        ["User", "page"],
      ],
    );
    assert.equal((await garden.call("GET", "/sites/garden/files?q=used")).body.items[0].uses, 2);

    assert.equal((await garden.call("DELETE", `/sites/garden/files/${file.id}`)).status, 204);
    assert.equal((await garden.call("GET", "/sites/garden/files?q=used")).body.total, 0);
    assert.equal((await garden.call("POST", `/sites/garden/files/${file.id}/restore`)).body.path, file.path);
  });
  test("its path and alternative text are changed, and two never share a path", async () => {
    const [{ body: one }, { body: other }] = [
      await upload("one.txt", "111"),
      await upload("other.txt", "222"),
    ];
    const changed = await garden.call("PATCH", `/sites/garden/files/${one.id}`, {
      alt: "A list",
      path: "/files/list.txt",
    });
    assert.deepEqual([changed.body.alt, changed.body.path], ["A list", "/files/list.txt"]);
    const taken = await garden.call("PATCH", `/sites/garden/files/${other.id}`, { path: "/files/list.txt" });
    assert.deepEqual([taken.status, taken.body.errors[0].path], [422, "path"]);
    assert.equal(
      (await garden.call("PATCH", `/sites/garden/files/${other.id}`, { path: "/elsewhere.txt" })).status,
      422,
    );
  });
});

describe("pages come in and go out", () => {
  const bring = (name: string, content: string | Uint8Array, more = ""): Promise<Answered> =>
    garden.call("POST", `/sites/garden/import?name=${encodeURIComponent(name)}${more}`, undefined, {
      raw: content as BodyInit,
    });

  test("a zip of HTML, Markdown and a picture: tried first, then brought, with every link told", async () => {
    const archive = zipSync({
      "guides/start.md": strToU8(
        "---\ntitle: Start here\ncategory: Guides\n---\n\n![A dot](../pics/dot.png)\n\nSee [the other](/other) and [a shop](https://shop.example/) or [nothing](/none).\n",
      ),
      "other.html": strToU8(
        "<html><head><title>The other</title><meta name='description' content='Short'></head><body><h1>The other</h1><p onclick='x()'>Words<script>1</script></p></body></html>",
      ),
      "pics/dot.png": new Uint8Array(PNG),
    });
    const dry = (await bring("pages.zip", archive, "&dryRun=1")).body.files;
    assert.deepEqual(dry.map(({ outcome }: { outcome: string }) => outcome).sort(), [
      "created",
      "created",
      "uploaded",
    ]);
    assert.equal(
      (await garden.call("GET", "/sites/garden/pages?q=Start")).body.total,
      0,
      "nothing was written",
    );

    const { body } = await bring("pages.zip", archive, "&publish=1");
    const start = body.files.find(({ name }: { name: string }) => name === "guides/start.md");
    assert.deepEqual([start.outcome, start.path, start.title], ["created", "/guides/start", "Start here"]);
    assert.deepEqual(
      start.links.map(({ href, kind }: { href: string; kind: string }) => [href, kind]),
      [
        ["/other", "page"],
        ["https://shop.example/", "external"],
        ["/none", "broken"],
      ],
    );
    const other = body.files.find(({ name }: { name: string }) => name === "other.html");
    assert.match(other.dropped.join(), /onclick/);
    const page = (await garden.call("GET", `/sites/garden/pages/${start.page}`)).body;
    assert.match(
      page.html,
      /<img src="\/files\/gro-e-der-linse-1\.png" alt="A dot">/,
      "the picture leads to its upload",
    );
    assert.deepEqual([page.category, page.status], ["Guides", "published"]);
    const again = (await bring("pages.zip", archive)).body.files;
    assert.deepEqual(again.map(({ outcome }: { outcome: string }) => outcome).sort(), [
      "unchanged",
      "unchanged",
      "uploaded",
    ]);
  });

  for (const format of ["html", "markdown"]) {
    test(`out as ${format} and in again changes nothing`, async () => {
      const out = (): Promise<Answered> => garden.call("GET", `/sites/garden/export?format=${format}`);
      const first = await exported(out);
      const { files } = (await bring("out.zip", first)).body;
      assert.ok(files.length >= 4);
      assert.deepEqual([...new Set(files.map(({ outcome }: { outcome: string }) => outcome))], ["unchanged"]);
      assert.deepEqual(await exported(out), first);
    });
  }

  async function exported(out: () => Promise<Answered>): Promise<Uint8Array> {
    const { status, type, bytes } = await out();
    assert.deepEqual([status, type], [200, "application/zip"]);
    return bytes;
  }

  test("as readers get it, rules are applied", async () => {
    await garden.call("PUT", "/sites/garden/rules", {
      version: 0,
      rules: [{ name: "new tab", match: { destination: "external" }, set: { target: "new" } }],
    });
    const { unzipSync, strFromU8 } = await import("fflate");
    const { bytes } = await garden.call("GET", "/sites/garden/export?format=html&as=delivered");
    assert.match(strFromU8(unzipSync(bytes)["guides/start.html"]!), /target="_blank">a shop/);
    assert.equal((await garden.call("GET", "/sites/garden/export?format=pdf")).status, 400);
  });

  test("names that climb out, bombs and broken archives do no harm", async () => {
    const climbing = zipSync({
      "../../etc/passwd.html": strToU8("<p>x</p>"),
      "/abs.html": strToU8("<p>x</p>"),
      "fine.html": strToU8("<p>fine</p>"),
    });
    const { body } = await bring("climb.zip", climbing);
    assert.deepEqual(
      body.files.map(({ name, outcome }: { name: string; outcome: string }) => [name, outcome]).sort(),
      [
        ["../../etc/passwd.html", "refused"],
        ["/abs.html", "refused"],
        ["fine.html", "created"],
      ],
    );
    const bomb = zipSync({ "bomb.html": new Uint8Array(30_000_000) });
    assert.ok(bomb.length < 100_000);
    assert.match((await bring("bomb.zip", bomb)).body.files[0].message, /unpacks to 30 MB/);
    const many = zipSync(
      Object.fromEntries(Array.from({ length: 9 }, (_, at) => [`${at}.txt`, new Uint8Array(24_900_000)])),
    );
    assert.match((await bring("many.zip", many)).body.detail, /more than 200 MB/);
    const broken = await bring("broken.zip", climbing.slice(0, 40));
    assert.deepEqual([broken.status, broken.type], [422, "application/problem+json"]);
  });

  for (const [says, name, content, message] of [
    ["Latin-1", "latin.html", Buffer.from("<p>caf\xe9</p>", "latin1"), /not UTF-8/],
    ["six megabytes", "long.html", "x".repeat(5_000_001), /5,000,000 characters/],
    ["a title that is too long", "t.html", `<title>${"t".repeat(400)}</title><p>x</p>`, /300 characters/],
    ["a path that is none", "p.md", "---\npath: no slash\n---\nx", /starts with one slash/],
  ] as const) {
    test(`${says} is refused with its reason`, async () => {
      const { body } = await bring(name, content);
      assert.equal(body.files[0].outcome, "refused");
      assert.match(body.files[0].message, message);
    });
  }
  test("front matter that cannot be read is told, and the text comes in", async () => {
    const { body } = await bring("odd.md", "---\ntitle: [unclosed\n---\n\nWords of the page");
    assert.equal(body.files[0].outcome, "created");
    assert.match(body.files[0].dropped.join(), /front matter cannot be read/);
  });
});
