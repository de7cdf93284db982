import assert from "node:assert/strict";
import { describe, test } from "node:test";
import fc from "fast-check";
import { crediter, DOUBTFUL, UNKNOWN, type Credit, type CreditedProgram } from "./credit.ts";

const PROGRAMS: CreditedProgram[] = [
  { id: "1", name: "Lens House", network: "Ferry", reportNames: ["LENSHOUSE DE", "Wool"] },
  { id: "2", name: "Wool", network: "Ferry", reportNames: [] },
  { id: "3", name: "Boats", network: "Harbour", reportNames: ["Lens House"] },
  { id: "4", name: "Almanac", network: "", reportNames: ["almanac press"] },
];
const ISSUED = [
  { subId: "first-1", programId: "1", pageId: "11" },
  { subId: "first-1", programId: "3", pageId: "13" },
  { subId: "twice", programId: "1", pageId: "21" },
  { subId: "twice", programId: "2", pageId: "22" },
  { subId: "wool", programId: "2", pageId: null },
  { subId: "own", programId: "4", pageId: "14" },
];

describe("a report's row belongs", () => {
  const cases: readonly (readonly [
    network: string,
    subId: string,
    program: string,
    credit: Partial<Credit>,
  ])[] = [
    ["Ferry", "first-1", "", { programId: "1", pageId: "11" }],
    ["ferry ", "first-1", "", { programId: "1", pageId: "11" }],
    ["Harbour", "first-1", "", { programId: "3", pageId: "13" }],
    ["Harbour", "first-1", "Boats", { programId: "3", pageId: "13" }],
    ["Elsewhere", "first-1", "", UNKNOWN],
    ["Elsewhere", "first-1", "Boats", UNKNOWN],
    ["Ferry", "first-1", "lens house", { programId: "1", pageId: "11" }],
    ["Ferry", "first-1", "LensHouse DE", { programId: "1", pageId: "11" }],
    ["Ferry", "first-1", "Wool", DOUBTFUL],
    ["Ferry", "first-1", "never heard of", { programId: "1", pageId: "11" }],
    ["Ferry", "unknown", "Wool", { programId: "2", pageId: null }],
    ["Ferry", "", "Wool", { programId: "2", pageId: null }],
    ["Harbour", "wool", "", UNKNOWN],
    ["Harbour", "wool", "Boats", { programId: "3", pageId: null }],
    ["Harbour", "wool", "Lens House", { programId: "3", pageId: null }],
    ["Ferry", "twice", "", DOUBTFUL],
    ["Ferry", "twice", "Wool", { programId: "2", pageId: "22" }],
    ["Ferry", "own", "", UNKNOWN],
    ["Ferry", "own", "Almanac", { programId: "4", pageId: "14" }],
    ["Almanac", "own", "", { programId: "4", pageId: "14" }],
    ["Almanac", "", "Almanac Press", { programId: "4", pageId: null }],
    ["Ferry", "first-1", "Almanac", DOUBTFUL],
  ];
  for (const [network, subId, program, credit] of cases)
    test(`${network}: ${subId || "no sub-ID"}, ${program || "no name"}`, () =>
      assert.deepEqual(crediter(network, PROGRAMS, ISSUED)({ subId, program }), credit));

  test("never to a program of another network, nor to one while it names another", () => {
    const network = fc.constantFrom("Ferry", "Harbour", "");
    const program = fc.record({ name: fc.constantFrom("A", "B", "C", "D"), network });
    fc.assert(
      fc.property(
        fc.uniqueArray(program, { selector: ({ name }) => name, maxLength: 4 }),
        fc.array(fc.tuple(fc.nat(3), fc.constantFrom("s", "t"))),
        fc.constantFrom("Ferry", "Harbour", "A"),
        fc.constantFrom("s", "t", "u", ""),
        fc.constantFrom("A", "B", "C", "D", "", "E"),
        (list, issued, report, subId, word) => {
          const programs = list.map((one, at) => ({ ...one, id: String(at), reportNames: [] }));
          const given = issued.map(([at, label]) => ({ subId: label, programId: String(at), pageId: null }));
          const { programId } = crediter(report, programs, given)({ subId, program: word });
          if (programId === null) return;
          const credited = programs[Number(programId)]!;
          assert.ok(credited.network === "" || credited.network === report);
          const named = programs.find(
            ({ name, network: of }) => name === word && (of === "" || of === report),
          );
          if (named) assert.equal(credited.name, word);
        },
      ),
      { numRuns: 2000 },
    );
  });
});
