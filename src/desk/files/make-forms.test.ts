import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import sharp, { type Metadata } from "sharp";
import { ask, until } from "../../../tests/support/ask.ts";
import { testDelivery, type TestDelivery } from "../../../tests/support/delivery.ts";
import { testDesk, type TestDesk } from "../../../tests/support/desk.ts";
import { makeNextForms } from "./make-forms.ts";

let garden: TestDesk;
let delivery: TestDelivery;
before(async () => {
  garden = await testDesk();
  delivery = await testDelivery(garden.url);
});
after(async () => {
  await delivery.end();
  await garden.close();
});

// Left half red, right half blue.
const twoHalves = async (format: "jpeg" | "png" = "jpeg"): Promise<Buffer> => {
  const half = { width: 700, height: 700, channels: 3 as const };
  const blue = await sharp({ create: { ...half, background: "#0000ff" } })
    .png()
    .toBuffer();
  return sharp({ create: { width: 1400, height: 700, channels: 3, background: "#ff0000" } })
    .composite([{ input: blue, left: 700, top: 0 }])
    .toFormat(format)
    .toBuffer();
};
const upload = async (name: string, raw: Buffer) =>
  (await garden.call("POST", `/sites/garden/files?name=${name}`, undefined, { raw: new Uint8Array(raw) }))
    .body;
async function makeAll(): Promise<void> {
  while (await makeNextForms(garden.desk));
  await delivery.level();
}
// The bytes of a picture, as who asks for it gets them.
async function got(path: string): Promise<{ picture: Metadata; colour: string; caching: string }> {
  const answer = await fetch(`http://127.0.0.1:${delivery.port}${path}`, {
    headers: { Host: "garden.example" },
  });
  assert.equal(answer.status, 200, path);
  const content = Buffer.from(await answer.arrayBuffer());
  const { dominant } = await sharp(content).stats();
  return {
    picture: await sharp(content).metadata(),
    colour: dominant.r > dominant.b ? "red" : "blue",
    caching: answer.headers.get("cache-control") ?? "",
  };
}

describe("the forms of a picture", () => {
  test("are made in sizes and formats, and pages let browsers choose among them", async () => {
    const file = await upload("halves.jpg", await twoHalves());
    assert.equal(file.isFormed, false);
    await makeAll();
    await garden.call("POST", "/sites/garden/pages", {
      path: "/halves",
      title: "Halves",
      html: `<figure><img src="${file.path}" alt="Two halves"></figure>`,
      publish: true,
    });
    const page = await until("the page is there", async () => {
      const { status, body } = await ask(delivery.port, "/halves");
      return status === 200 ? body : "";
    });
    const sets = [...page.matchAll(/srcset="([^"]+)"/g)].map(([, set]) => set!.split(", "));
    assert.deepEqual(
      sets.map((set) => set.map((one) => one.replace(/.*\//, ""))),
      [
        ["320.avif 320w", "640.avif 640w", "960.avif 960w", "1280.avif 1280w", "1400.avif 1400w"],
        ["320.webp 320w", "640.webp 640w", "960.webp 960w", "1280.webp 1280w", "1400.webp 1400w"],
      ],
    );
    assert.match(page, /<img src="[^"]+" alt="Two halves" width="1400" height="700"/);
    const [made] = (await garden.call("GET", "/sites/garden/pages?q=Halves")).body.items;
    const fragment = await garden.call("GET", `/sites/garden/pages/${made.id}/delivered`);
    assert.ok(page.includes(fragment.body), "the API tells what readers get");
    for (const one of [sets[0]![1]!, sets[1]![1]!]) {
      const { picture, caching } = await got(one.split(" ")[0]!);
      assert.deepEqual([picture.width, picture.height], [640, 320]);
      assert.match(caching, /immutable/);
    }
    const card = /property="og:image" content="https:\/\/garden\.example([^"]+)"/.exec(page)?.[1];
    const { picture } = await got(card!);
    assert.deepEqual([picture.format, picture.width, picture.height], ["jpeg", 1200, 630]);
  });

  test("are of the part that is shown, and cards are cut around the focus", async () => {
    const file = await upload("part.png", await twoHalves("png"));
    await makeAll();
    const before_ = await got(file.path);
    assert.equal(before_.picture.width, 1400);
    const crop = { left: 0.5, top: 0, width: 0.5, height: 1 };
    const changed = await garden.call("PATCH", `/sites/garden/files/${file.id}`, {
      crop,
      focus: { x: 1, y: 1 },
    });
    assert.deepEqual([changed.status, changed.body.crop, changed.body.isFormed], [200, crop, false]);
    await makeAll();
    const shown = await got(file.path);
    assert.deepEqual([shown.picture.width, shown.picture.format, shown.colour], [700, "png", "blue"]);
    const original = await garden.call("GET", `/sites/garden/files/${file.id}/content`);
    assert.equal((await sharp(original.bytes).metadata()).width, 1400, "what was uploaded is kept whole");
    await garden.call("PATCH", `/sites/garden/files/${file.id}`, { crop: null, focus: null });
    await makeAll();
    assert.equal((await got(file.path)).picture.width, 1400);
  });

  test("an older page finds the newer form, and does not keep it", async () => {
    const file = await upload(
      "older.png",
      await sharp(await twoHalves("png"))
        .resize(500)
        .toBuffer(),
    );
    await makeAll();
    const row = await garden.store.files.findOne({ where: { id: file.id } });
    const at = (shape: number): string =>
      `/~pictures/${file.id}-${row!.digest.slice(0, 12)}-${shape}/320.webp`;
    assert.match((await got(at(1))).caching, /immutable/);
    assert.doesNotMatch((await got(at(7))).caching, /immutable/);
    assert.equal((await ask(delivery.port, `/~pictures/${file.id}-${"0".repeat(12)}-1/9.webp`)).status, 404);
    assert.equal((await ask(delivery.port, "/~pictures/x")).status, 404);
  });

  test("what cannot be read is sent as it is, what scales or moves too, and neither is tried again", async () => {
    const damaged = await twoHalves();
    const file = await upload("damaged.jpg", damaged.subarray(0, 900));
    const drawing = await upload(
      "drawing.svg",
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
    );
    await makeAll();
    assert.equal(await makeNextForms(garden.desk), false);
    assert.equal((await ask(delivery.port, file.path)).status, 200);
    assert.equal(drawing.isFormed, true);
    const refused = await garden.call("PATCH", `/sites/garden/files/${drawing.id}`, {
      crop: { left: 0, top: 0, width: 1, height: 0.5 },
    });
    assert.deepEqual([refused.status, refused.body.errors[0].path], [422, "crop"]);
  });
});
