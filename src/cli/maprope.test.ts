import assert from "node:assert/strict";
import { mkdir, mkdtemp, readFile, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { after, before, test } from "node:test";
import { maprope } from "./maprope.ts";
import type { Terminal } from "./terminal.ts";

let folder: string;
before(async () => {
  folder = await mkdtemp(join(tmpdir(), "maprope-cli-"));
});
after(() => rm(folder, { recursive: true }));

const RULES = [
  { name: "Out", match: { destination: "external" }, set: { nofollow: "on" } },
  { name: "Letters", match: { pages: ["/letters/*"] }, set: { ugc: "on" } },
];
const LINK = '<p>é <a href="https://a.example/">a</a> <a href="https://own.example/b">b</a></p>\n';
const MARKED = LINK.replace("a.example/", 'a.example/" rel="nofollow').replace('"">', '">');

async function run(args: string[], stdin: (Uint8Array | string)[] = [], at = folder) {
  const written: Uint8Array[] = [];
  const told: Uint8Array[] = [];
  const bytesOf = (text: string | Uint8Array): Uint8Array => Buffer.from(text as string);
  const terminal: Terminal = {
    stdin: (async function* () {
      yield* stdin;
    })(),
    stdout: { write: (text) => written.push(bytesOf(text)) },
    stderr: { write: (text) => told.push(bytesOf(text)) },
    env: {},
    folder: at,
    version: "1.2.3",
    help: "help",
  };
  const status = await maprope(args, terminal);
  return { status, out: Buffer.concat(written).toString(), told: Buffer.concat(told).toString() };
}
async function fresh(name: string): Promise<{ at: string; rules: string }> {
  const at = join(folder, name);
  await mkdir(join(at, "letters"), { recursive: true });
  const rules = join(folder, `${name}.json`);
  await writeFile(rules, JSON.stringify({ version: 3, rules: RULES }));
  await writeFile(join(at, "index.html"), LINK);
  await writeFile(join(at, "letters", "one.HTM"), LINK);
  await writeFile(join(at, "notes.txt"), LINK);
  return { at, rules };
}

test("a folder's documents are rewritten in place, each as the page that it is", async () => {
  const { at, rules } = await fresh("folder");
  const { status, out } = await run(["rewrite", at, "--rules", rules, "--host", "own.example"]);
  assert.equal(status, 0);
  assert.equal(await readFile(join(at, "index.html"), "utf8"), MARKED);
  assert.match(await readFile(join(at, "letters", "one.HTM"), "utf8"), /rel="nofollow ugc".*b" rel="ugc"/s);
  assert.equal(await readFile(join(at, "notes.txt"), "utf8"), LINK);
  assert.match(
    out,
    /index\.html:1: “a” https:\/\/a\.example\/\n {2}no rel, no target → rel="nofollow" {2}\(Out\)/,
  );
  assert.match(out, /3 of 4 links in 2 of 2 documents changed\.$/m);
  assert.equal((await run(["rewrite", at, "--rules", rules, "--host", "own.example", "--check"])).status, 0);
});

test("--check writes nothing and fails when something would change", async () => {
  const { at, rules } = await fresh("checked");
  const { status, out } = await run(["rewrite", at, "--rules", rules, "--check", "--report", "json"]);
  assert.equal(status, 1);
  assert.equal(await readFile(join(at, "index.html"), "utf8"), LINK);
  const outcome = JSON.parse(out);
  assert.deepEqual([outcome.links, outcome.files.length, outcome.files[0].changes.length], [4, 2, 2]);
});

test("from standard input to standard output, wherever a character is cut, with the report beside it", async () => {
  const { rules } = await fresh("stream");
  const bytes = Buffer.from(LINK);
  const pieces = [...bytes].map((byte) => Uint8Array.of(byte));
  const { status, out, told } = await run(["rewrite", "--rules", rules, "--host", "own.example"], pieces);
  assert.deepEqual([status, out], [0, MARKED]);
  assert.match(told, /1 of 2 links in 1 of 1 documents changed/);
  const checked = await run(["rewrite", "-", "--rules", rules, "--check", "--report", "none"], [LINK]);
  assert.deepEqual(checked, { status: 1, out: "", told: "" });
});

test("a document in an older encoding keeps its bytes, and is marked", async () => {
  const { at, rules } = await fresh("older");
  const file = join(at, "older.html");
  await writeFile(file, Buffer.from(LINK.replace("<a ", '<a title="Caf\u00e9" '), "latin1"));
  const { status } = await run(["rewrite", file, "--rules", rules, "--host", "own.example"]);
  assert.equal(status, 0);
  const text = (await readFile(file)).toString("latin1");
  assert.equal(text, MARKED.replace("<a ", '<a title="Caf\u00e9" '));
});

test("rules that name programs or networks want the bundle, which decides as the site does", async () => {
  const { at } = await fresh("bundle");
  const file = join(at, "bundle.json");
  const rules = [
    { name: "Paid", match: { programs: ["Harbour Optics"] }, set: { sponsored: "on" } },
    { name: "Both", match: { networks: ["Tidewater"], destination: "external" }, set: { nofollow: "on" } },
  ];
  await writeFile(file, JSON.stringify({ rules }));
  const refused = await run(["rewrite", at, "--rules", file]);
  assert.equal(refused.status, 2);
  assert.match(refused.told, /“Paid” names the program “Harbour Optics”/);
  assert.equal(await readFile(join(at, "index.html"), "utf8"), LINK);
  const partners = [
    { name: "Harbour Optics", network: "Tidewater", domains: ["harbour.example"], needsReferrer: false },
  ];
  const routes = [
    { host: null, key: "/to/lamp", folded: true, destination: "https://harbour.example/lamp" },
    { host: "own.example", key: "prefix:/old", folded: false, destination: "https://harbour.example/$1" },
  ];
  await writeFile(file, JSON.stringify({ rules, hosts: ["own.example"], partners, routes }));
  const links = [
    "https://harbour.example/",
    "/to/LAMP",
    "https://own.example/old/x",
    "/elsewhere",
    "https://a.example/",
  ];
  const { status, out } = await run(
    ["rewrite", "--rules", file],
    [links.map((href) => `<a href="${href}">x</a>`).join("")],
  );
  assert.equal(status, 0);
  assert.deepEqual(
    [...out.matchAll(/<a href="[^"]*"(?: rel="([^"]*)")?/g)].map(([, rel]) => rel),
    ["sponsored nofollow", "sponsored nofollow", "sponsored nofollow", undefined, undefined].map(
      (rel) => rel && "nofollow sponsored",
    ),
  );
});

test("a file that is no text is named and left, and the others are done", async () => {
  const { at, rules } = await fresh("broken");
  await writeFile(join(at, "bad.html"), Uint8Array.of(0xff, 0xfe, 0x00));
  const { status, out } = await run(["rewrite", at, "--rules", rules]);
  assert.equal(status, 2);
  assert.match(out, /bad\.html: This is not text in UTF-8/);
  assert.equal((await readFile(join(at, "bad.html"))).length, 3);
  assert.match(await readFile(join(at, "index.html"), "utf8"), /nofollow/);
});

test("patterns name files, whose pages begin where the pattern does; what is left out, and other people's packages, stay", async () => {
  const { at, rules } = await fresh("patterns");
  for (const below of ["node_modules/x", "drafts/deep", "letters/old"]) {
    await mkdir(join(at, below), { recursive: true });
    await writeFile(join(at, below, "page.html"), LINK);
  }
  const report = async (...args: string[]): Promise<string[]> => {
    const { out } = await run(["rewrite", ...args, "--rules", rules, "--check", "--report", "json"]);
    return (JSON.parse(out).files as { file: string }[]).map(({ file }) => file.slice(at.length + 1));
  };
  assert.deepEqual(await report(at), [
    "drafts/deep/page.html",
    "index.html",
    "letters/old/page.html",
    "letters/one.HTM",
  ]);
  assert.deepEqual(await report(`${at}/letters/**/*.{html,HTM}`), [
    "letters/old/page.html",
    "letters/one.HTM",
  ]);
  assert.deepEqual(await report(at, "--exclude", "drafts", "--exclude", "**/*.HTM"), [
    "index.html",
    "letters/old/page.html",
  ]);
  const { out } = await run(["rewrite", `${at}/*/one.HTM`, "--rules", rules, "--check"]);
  assert.match(out, /nofollow ugc/, "its page is /letters/one");
  assert.match((await run(["rewrite", `${at}/*.pdf`, "--rules", rules])).told, /no HTML file is named by/);
});

test("settings stand in a file, with the category of each page by its path; what is told goes before them", async () => {
  const { at } = await fresh("settings");
  const ofLetters = [{ name: "L", match: { categories: ["Letters"] }, set: { ugc: "on" } }];
  await writeFile(join(at, "rules.json"), JSON.stringify(ofLetters));
  const settings = {
    rules: "rules.json",
    hosts: ["own.example"],
    files: ["."],
    exclude: ["notes.txt"],
    categories: { "/letters/*": "Letters", "/*": "Others" },
    report: "none",
  };
  await writeFile(join(at, "maprope.config.json"), JSON.stringify(settings));
  assert.deepEqual(await run(["rewrite"], [], at), { status: 0, out: "", told: "" });
  assert.equal(await readFile(join(at, "index.html"), "utf8"), LINK);
  assert.match(await readFile(join(at, "letters", "one.HTM"), "utf8"), /a\.example\/" rel="ugc"/);
  const named = await run(
    ["rewrite", join(at, "index.html"), "--category", "Letters", "--report", "text"],
    [],
    at,
  );
  assert.match(named.out, /2 of 2 links in 1 of 1 documents changed/);
  const elsewhere = await run(
    ["rewrite", "--config", join(at, "maprope.config.json"), "--check"],
    [],
    folder,
  );
  assert.equal(elsewhere.status, 0);
  for (const [wrong, told] of [
    ["{", /is not JSON/],
    ['{"colour":1}', /there is no setting “colour”/],
    ['{"files":"."}', /files: files is a list of texts/],
  ] as const) {
    await writeFile(join(at, "maprope.config.json"), wrong);
    const answer = await run(["rewrite"], [], at);
    assert.equal(answer.status, 2);
    assert.match(answer.told, told);
  }
  assert.match((await run(["rewrite", "--config", "none.json"], [], at)).told, /settings could not be read/);
});

test("--version says which, --help says how", async () => {
  assert.deepEqual(await run(["--version"]), { status: 0, out: "1.2.3\n", told: "" });
  assert.deepEqual(await run(["--help"]), { status: 0, out: "help", told: "" });
});

const unusable: [says: string, args: (rules: string) => string[], told: RegExp][] = [
  ["no rules and no site", () => ["rewrite"], /--rules FILE, or --site KEY/],
  ["no token", () => ["rewrite", "--site", "x"], /MAPROPE_API_TOKEN/],
  ["rules that are not there", () => ["rewrite", "--rules", "/nowhere.json"], /could not be read/],
  ["a folder that is not there", (rules) => ["rewrite", "/nowhere", "--rules", rules], /no file or folder/],
  ["a host that is none", (rules) => ["rewrite", "--rules", rules, "--host", "a b"], /--host a b/],
  ["another command", () => ["publish"], /no command “publish”/],
  ["an option that there is not", () => ["rewrite", "--force"], /--force/],
  ["another report", (rules) => ["rewrite", "--rules", rules, "--report", "xml"], /text, json or none/],
];
for (const [says, args, told] of unusable)
  test(`said in a sentence, with status 2: ${says}`, async () => {
    const { rules } = await fresh("unusable");
    const answer = await run(args(rules));
    assert.equal(answer.status, 2);
    assert.match(answer.told, told);
  });

test("rules that cannot be taken are named by their field", async () => {
  const { rules } = await fresh("badrules");
  await writeFile(rules, JSON.stringify([{ name: "x", match: { domains: ["a.*.example"] }, set: {} }]));
  const { status, told } = await run(["rewrite", "--rules", rules]);
  assert.equal(status, 2);
  assert.match(told, /0\.match\.domains\.0: .*star stands alone in front/);
});
