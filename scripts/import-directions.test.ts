import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { ESLint } from "eslint";
import { root } from "./install.mjs";

const eslint = new ESLint({ cwd: root });

async function rulesBrokenBy(file: string, code: string): Promise<string[]> {
  const [result] = await eslint.lintText(code, { filePath: file });
  return [...new Set(result!.messages.map(({ ruleId }) => ruleId ?? "parse"))];
}

describe("imports point down only", () => {
  const cases: readonly (readonly [file: string, from: string, allowed: boolean])[] = [
    ["src/core/links/find.ts", "../address/repair.ts", true],
    ["src/core/links/find.ts", "../../store/store.ts", false],
    ["src/core/links/find.ts", "node:fs", false],
    ["src/core/links/find.ts", "react", false],
    ["src/store/store.ts", "../core/address/repair.ts", true],
    ["src/store/store.ts", "../desk/desk.ts", false],
    ["src/desk/pages.ts", "../store/store.ts", true],
    ["src/desk/pages.ts", "../delivery/delivery.ts", false],
    ["src/delivery/listener.ts", "../store/store.ts", true],
    ["src/delivery/listener.ts", "../desk/desk.ts", false],
    ["src/islands/write/rope/Rope.tsx", "../../../core/address/repair.ts", true],
    ["src/islands/write/rope/Rope.tsx", "../../../desk/desk.ts", false],
    ["src/islands/write/rope/Rope.tsx", "../../../store/store.ts", false],
    ["src/ui/Knot.tsx", "../islands/write/rope/Rope.tsx", false],
    ["src/workers/page-check.ts", "../core/check/page-check.ts", true],
    ["src/workers/page-check.ts", "../islands/write/rope/Rope.tsx", false],
    ["src/desk/pages.ts", "../sim/server.ts", false],
  ];
  for (const [file, from, allowed] of cases) {
    test(`${file} ${allowed ? "may" : "may not"} import ${from}`, async () => {
      const broken = await rulesBrokenBy(
        file,
        `import * as other from "${from}";\nexport const used = other;\n`,
      );
      assert.deepEqual(broken.length === 0, allowed, broken.join(", "));
    });
  }

  test("core has neither clock nor random source", async () => {
    assert.deepEqual(
      await rulesBrokenBy("src/core/links/find.ts", "export const now = Date.now() + Math.random();\n"),
      ["no-restricted-properties"],
    );
  });
});
