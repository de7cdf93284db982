/**
 * Which layer may import which (docs/architecture.md): imports point down only, types included, and never in a circle.
 * @type {Readonly<Record<string, readonly string[]>>}
 */
const BELOW = {
  core: [],
  contract: ["core"],
  store: ["core", "threads"],
  threads: [],
  outgoing: ["core"],
  incoming: [],
  desk: ["contract", "store", "core", "outgoing", "threads"],
  delivery: ["incoming", "outgoing", "store", "core", "threads"],
  cli: ["contract", "core"],
  sim: ["incoming"],
  workers: ["core"],
  ui: ["contract", "core"],
  islands: ["ui", "workers", "contract", "core"],
  pages: ["ui", "islands", "contract", "core"],
  server: ["desk", "delivery", "incoming", "store", "outgoing", "contract", "core"],
};
/** The subjects: a folder in any layer is named after one, or is that layer's own ground. */
const SUBJECTS =
  "pages|files|blocks|navigation|links|routes|misses|trace|clicks|rules|ledger|programs|creatives|earnings|people|sites|origin|jobs";
/** What a layer may have beside them: what its subjects stand on. */
const GROUND = { core: "ground|address|html|text", ui: "[a-z]+" };

const layers = Object.keys(BELOW);
const borders = layers.map((layer) => ({
  name: `${layer}-points-down`,
  comment: `${layer}/ imports from ${BELOW[layer].join("/, ") || "nothing of ours"}${BELOW[layer].length ? "/" : ""} only.`,
  severity: "error",
  from: {
    path: `^src/${layer}/`,
    // The workspace's frame is an Astro layout that places islands; nothing else of ui/ knows them.
    pathNot: ["\\.test\\.tsx?$", ...(layer === "ui" ? ["\\.astro$"] : [])],
  },
  to: { path: "^src/", pathNot: `^src/(?:${[layer, ...BELOW[layer]].join("|")})/` },
}));
const grid = ["core", "store", "desk", "delivery", "islands"].map((layer) => ({
  name: `${layer}-by-subject`,
  comment: `A folder of ${layer}/ is named after a subject.`,
  severity: "error",
  from: {},
  to: {
    path: `^src/${layer}/[^/]+/`,
    pathNot: `^src/${layer}/(?:${SUBJECTS}|${GROUND[layer] ?? "ground"})/`,
  },
}));

module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    ...borders,
    ...grid,
    {
      name: "sim-alone",
      comment: "The simulated world is nobody's to import but whoever starts it.",
      severity: "error",
      from: { path: "^src/", pathNot: "^src/sim/" },
      to: { path: "^src/sim/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
  },
};
