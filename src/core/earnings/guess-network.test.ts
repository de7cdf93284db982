import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { guessNetwork, type KnownNetwork, type ReportSigns } from "./guess-network.ts";

const columns = (reference: string) => ({
  reference,
  at: "date",
  commission: "earned",
  fixedCurrency: "EUR",
  dates: "ymd" as const,
  decimal: "." as const,
});
const NETWORKS: KnownNetwork[] = [
  { name: "Ferry Partners", columns: columns("order") },
  { name: "Harbour", columns: columns("id") },
  { name: "New one", columns: null },
];
const PROGRAMS = [
  { id: "1", name: "Lens House", network: "Ferry Partners", reportNames: ["LENS-DE"] },
  { id: "2", name: "Boats", network: "Harbour", reportNames: [] },
  { id: "3", name: "Own", network: "", reportNames: [] },
];
const ISSUED = [
  { subId: "first-1", programId: "1", pageId: null },
  { subId: "both", programId: "1", pageId: null },
  { subId: "both", programId: "2", pageId: null },
];
const NOTHING: ReportSigns = { header: [], fileName: "", programs: [], subIds: [] };

describe("a report seems to be", () => {
  const cases: readonly (readonly [
    says: string,
    signs: Partial<ReportSigns>,
    name: string | undefined,
    why?: RegExp,
  ])[] = [
    ["nobody's when nothing tells", {}, undefined],
    [
      "of the network whose program it names",
      { programs: ["Somebody", "lens house"] },
      "Ferry Partners",
      /names lens house/,
    ],
    ["by what reports call a program", { programs: ["Lens DE"] }, "Ferry Partners", /Lens DE/],
    ["by the name of its file", { fileName: "harbour_2026-11.csv" }, "Harbour", /file/],
    ["by its sub-IDs", { subIds: ["", "first-1"] }, "Ferry Partners", /first-1/],
    ["by its columns", { header: ["id", "date", "earned", "more"] }, "Harbour", /columns/],
    [
      "by its programs rather than by its file",
      { programs: ["Boats"], fileName: "ferry partners.csv" },
      "Harbour",
      /Boats/,
    ],
    ["nobody's when two are as likely", { subIds: ["both"] }, undefined],
    ["nobody's when it names an own program alone", { programs: ["Own"] }, undefined],
  ];
  for (const [says, signs, name, why] of cases)
    test(says, () => {
      const guessed = guessNetwork({ ...NOTHING, ...signs }, NETWORKS, PROGRAMS, ISSUED);
      assert.equal(guessed?.name, name);
      if (why) assert.match(guessed!.why, why);
    });
});
