import assert from "node:assert/strict";
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { spawnSync } from "node:child_process";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { after, before, describe, test } from "node:test";
import { ESLint } from "eslint";
import { root } from "./install.mjs";

const VALUE = "export const value = 1;\nexport type Shape = number;\n";
const taking = (from: string): string => `import { value } from "${from}";\nexport const used = value;\n`;
const takingType = (from: string): string =>
  `import type { Shape } from "${from}";\nexport type Used = Shape;\n`;

const CASES: readonly (readonly [file: string, target: string, broken: string[]])[] = [
  ["src/core/links/find.ts", "src/core/address/repair.ts", []],
  ["src/core/links/find.ts", "src/store/routes/routes.ts", ["core-points-down"]],
  ["src/store/routes/routes.ts", "src/core/routes/route.ts", []],
  ["src/store/routes/routes.ts", "src/desk/routes/routes.ts", ["store-points-down"]],
  ["src/desk/pages/pages.ts", "src/store/pages/pages.ts", []],
  ["src/desk/pages/pages.ts", "src/delivery/ground/listener.ts", ["desk-points-down"]],
  ["src/delivery/ground/listener.ts", "src/desk/pages/pages.ts", ["delivery-points-down"]],
  ["src/islands/pages/Rope.tsx", "src/contract/pages.ts", []],
  ["src/islands/pages/Rope.tsx", "src/desk/pages/pages.ts", ["islands-points-down"]],
  ["src/ui/links/Knot.tsx", "src/islands/pages/Rope.tsx", ["ui-points-down"]],
  ["src/workers/page-check.ts", "src/islands/pages/Rope.tsx", ["workers-points-down"]],
  ["src/contract/pages.ts", "src/desk/pages/pages.ts", ["contract-points-down"]],
  ["src/desk/pages/pages.ts", "src/sim/server.ts", ["desk-points-down", "sim-alone"]],
  ["src/desk/pages/pages.ts", "src/desk/helpers/more.ts", ["desk-by-subject"]],
];
const KINDS = [
  ["values", taking],
  ["types", takingType],
] as const;

const tree = mkdtempSync(join(tmpdir(), "maprope-borders-"));
after(() => rmSync(tree, { recursive: true, force: true }));
const broken = new Map<string, string[]>();

function write(file: string, text: string): void {
  mkdirSync(join(tree, dirname(file)), { recursive: true });
  writeFileSync(join(tree, file), text);
}
/** The same file once for each case and kind. */
const named = (file: string, at: number, kind: string): string =>
  file.replace(/\.(tsx?)$/, `-${at}-${kind}.$1`);
const circle = (kind: string, one: string): string => `src/core/links/${one}-${kind}.ts`;

before(() => {
  for (const [kind, take] of KINDS) {
    CASES.forEach(([file, target], at) => {
      const up = "../".repeat(file.split("/").length - 1);
      write(named(file, at, kind), take(up + named(target, at, kind)));
      write(named(target, at, kind), VALUE);
    });
    for (const [one, next] of ["ab", "bc", "ca"])
      write(circle(kind, one!), `${take(`./${next}-${kind}.ts`)}${VALUE}`);
  }
  for (const file of [".dependency-cruiser.cjs", "tsconfig.json"]) cpSync(join(root, file), join(tree, file));
  symlinkSync(join(root, "node_modules"), join(tree, "node_modules"));
  const depcruise = join(root, "node_modules/dependency-cruiser/bin/dependency-cruise.mjs");
  const { stdout } = spawnSync(process.execPath, [depcruise, "src", "--output-type", "json"], {
    cwd: tree,
    encoding: "utf8",
  });
  const { summary } = JSON.parse(stdout) as {
    summary: { violations: { from: string; rule: { name: string } }[] };
  };
  for (const { from, rule } of summary.violations) broken.set(from, [...(broken.get(from) ?? []), rule.name]);
});

describe("imports point down only", () => {
  CASES.forEach(([file, target, rules], at) => {
    test(`${file} ${rules.length === 0 ? "may" : "may not"} import ${target}`, () => {
      for (const [kind] of KINDS)
        assert.deepEqual((broken.get(named(file, at, kind)) ?? []).sort(), rules, kind);
    });
  });
});

describe("no circle of imports", () => {
  for (const [kind] of KINDS)
    test(`of ${kind}`, () => {
      assert.deepEqual(
        [...new Set([..."abc"].flatMap((one) => broken.get(circle(kind, one)) ?? []))],
        ["no-circles"],
      );
    });
});

test("core has no I/O, no framework, no clock and no random source", async () => {
  const eslint = new ESLint({ cwd: root });
  const told = async (code: string): Promise<(string | null)[]> => {
    const [result] = await eslint.lintText(code, { filePath: "src/core/links/find.ts" });
    return result!.messages.map(({ ruleId }) => ruleId);
  };
  for (const name of ["node:fs", "react", "astro:content", "@tiptap/react"])
    assert.deepEqual(await told(`import * as other from "${name}";\nexport const used = other;\n`), [
      "no-restricted-imports",
    ]);
  assert.deepEqual(await told("export const now = Date.now() + Math.random();\n"), [
    "no-restricted-properties",
    "no-restricted-properties",
  ]);
});

test("what the database is asked stands in the store", async () => {
  const eslint = new ESLint({ cwd: root });
  const told = async (code: string, filePath: string): Promise<(string | null)[]> => {
    const [result] = await eslint.lintText(code, { filePath });
    return result!.messages.map(({ ruleId }) => ruleId);
  };
  const asks = [
    "export const all = (desk: Desk) => desk.store.pages.findAll({});\n",
    "export const gone = ({ store }: Desk) => store.files.destroy({ where: {} });\n",
    "export const some = (desk: Desk) => desk.store.rows(`SELECT 1 FROM pages`);\n",
  ];
  for (const ask of asks) {
    assert.match(String(await told(ask, "src/desk/pages/pages.ts")), /no-restricted-syntax/, ask);
    assert.deepEqual(await told(ask, "src/store/pages/pages.ts"), [], ask);
  }
});

test("a promise that nobody waits for is told", () => {
  write("src/core/late.ts", "export async function late(): Promise<void> {}\n");
  const linted = (code: string): string => {
    write("src/core/calls-late.ts", `import { late } from "./late.ts";\n${code}\n`);
    const oxlint = join(root, "node_modules/oxlint/bin/oxlint");
    const args = [oxlint, "-c", join(root, ".oxlintrc.json"), "--type-aware", "-f", "json", "src/core"];
    const { stdout } = spawnSync(process.execPath, args, { cwd: tree, encoding: "utf8" });
    const { diagnostics } = JSON.parse(stdout) as { diagnostics: { code: string }[] };
    return diagnostics.map(({ code: rule }) => rule).join();
  };
  assert.equal(linted("export function call(): void {\n  late();\n}"), "typescript(no-floating-promises)");
  assert.equal(
    linted('export function call(): void {\n  ["a"].forEach(async () => late());\n}'),
    "typescript(no-misused-promises)",
  );
  assert.equal(linted("export async function call(): Promise<void> {\n  await late();\n}"), "");
});
