import regexp from "eslint-plugin-regexp";
import importX from "eslint-plugin-import-x";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// Imports point down only (DESIGN section 4): pages, islands → desk → store, outgoing → core; delivery → store, core.
const below = {
  core: [],
  store: ["core"],
  outgoing: ["core"],
  desk: ["store", "core", "outgoing"],
  delivery: ["store", "core"],
  cli: ["core"],
  sim: [],
  ui: ["core"],
  workers: ["core"],
  islands: ["ui", "workers", "core"],
  pages: ["ui", "islands", "core"],
};
const layers = Object.keys(below);
const zones = layers.flatMap((layer) =>
  layers
    .filter((other) => other !== layer && !below[layer].includes(other))
    .map((other) => ({
      target: `./src/${layer}`,
      from: `./src/${other}`,
      message: `${layer}/ may import from ${below[layer].join("/, ") || "nothing of ours"}${below[layer].length ? "/" : ""} only (DESIGN section 4).`,
    })),
);
// The workspace's chrome is an Astro layout that places islands; nothing else of ui/ knows them.
const uiZones = zones.map((zone) =>
  zone.target === "./src/ui" && zone.from === "./src/islands"
    ? { ...zone, target: "./src/ui/**/*.{ts,tsx}" }
    : zone,
);

export default tseslint.config(
  { ignores: ["dist/**", ".cache/**", ".data/**", ".astro/**", "node_modules/**", "**/*.astro"] },
  ...tseslint.configs.recommended,
  {
    files: ["**/*.{ts,tsx}"],
    plugins: { "import-x": importX },
    settings: { "import-x/resolver": { typescript: true } },
    rules: {
      "import-x/no-restricted-paths": ["error", { zones: uiZones }],
      "import-x/no-cycle": "off",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { argsIgnorePattern: "^_", varsIgnorePattern: "^_|^\\$schema$", ignoreRestSiblings: true },
      ],
      "@typescript-eslint/no-empty-function": "off",
      "@typescript-eslint/consistent-type-imports": "off",
      "no-console": "off",
      "no-control-regex": "error",
      eqeqeq: "error",
    },
  },
  {
    files: ["src/**/*.{ts,tsx}", "demo/**/*.ts"],
    ignores: ["**/*.test.ts"],
    plugins: { regexp },
    rules: {
      // No expression over text from outside may go back and read again (docs/decisions/026).
      "regexp/no-super-linear-backtracking": ["error", { report: "potential" }],
      "regexp/no-super-linear-move": ["error", { report: "potential", ignoreSticky: true }],
    },
  },
  {
    files: ["src/core/**/*.ts"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: ["node:*", "react", "react-dom", "astro*", "@tiptap/react"],
              message: "core/ is pure: no I/O, no framework (DESIGN section 4).",
            },
          ],
        },
      ],
      "no-restricted-globals": ["error", "document", "window", "fetch", "process"],
      "no-restricted-properties": [
        "error",
        { object: "Date", property: "now", message: "core/ has no clock: take the time as an argument." },
        {
          object: "Math",
          property: "random",
          message: "core/ has no random source: take it as an argument.",
        },
      ],
    },
  },
  {
    files: ["src/**/*.tsx"],
    plugins: { "react-hooks": reactHooks, "jsx-a11y": jsxA11y },
    rules: {
      ...jsxA11y.configs.recommended.rules,
      "jsx-a11y/no-autofocus": "off",
      // Containers may listen for keys (Escape closes a panel); the pointer needs a real control.
      "jsx-a11y/no-static-element-interactions": [
        "error",
        { handlers: ["onClick", "onMouseDown", "onMouseUp"] },
      ],
      "jsx-a11y/no-noninteractive-element-interactions": [
        "error",
        { handlers: ["onClick", "onMouseDown", "onMouseUp"] },
      ],
      "jsx-a11y/no-noninteractive-tabindex": "off",
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
    },
  },
);
