import regexp from "eslint-plugin-regexp";
import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist/**", ".cache/**", ".data/**", ".astro/**", "node_modules/**", "**/*.astro"] },
  ...tseslint.configs.recommended,
  {
    files: ["**/*.{ts,tsx}"],
    rules: {
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
    // SQL, and whatever becomes SQL, stands in the store alone (docs/architecture.md).
    files: ["src/**/*.{ts,tsx}", "demo/**/*.ts", "scripts/**/*.ts"],
    ignores: ["src/store/**", "**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "MemberExpression[property.name=/^(?:rows|sequelize)$/][object.name='store']",
          message: "SQL stands in src/store/<subject>: write a typed function there.",
        },
        {
          selector: "MemberExpression[property.name=/^(?:rows|sequelize)$/][object.property.name='store']",
          message: "SQL stands in src/store/<subject>: write a typed function there.",
        },
        {
          selector:
            "CallExpression[callee.property.name=/^(?:find\\w*|create|bulkCreate|update|destroy|count|upsert)$/]:matches([callee.object.object.name='store'], [callee.object.object.property.name='store'])",
          message: "What the database is asked stands in src/store/<subject>: write a typed function there.",
        },
        {
          selector:
            ":matches(Literal[value=/\\b(SELECT .+ FROM|INSERT INTO|DELETE FROM|UPDATE \\w+ SET|ORDER BY)\\b/], TemplateElement[value.raw=/\\b(SELECT .+ FROM|INSERT INTO|DELETE FROM|UPDATE \\w+ SET|ORDER BY)\\b/])",
          message: "SQL stands in src/store/<subject>: write a typed function there.",
        },
      ],
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
              message: "core/ is pure: no I/O, no framework.",
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
