// Writes THIRD-PARTY.md: what is shipped of others, from the lock file; with --check, says whether it is as it should be.
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { root } from "./install.mjs";

const FILE = join(root, "THIRD-PARTY.md");
const { packages } = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));

/** Every package that is installed without the development ones: name, version, licence. */
const shipped = Object.entries(packages)
  .filter(([path, { dev, devOptional, optional }]) => path !== "" && !dev && !devOptional && !optional)
  .map(([path, { version, license }]) => ({
    name: path.slice(path.lastIndexOf("node_modules/") + "node_modules/".length),
    version,
    license: typeof license === "string" ? license : "see its own files",
  }));
const byLicense = shipped.reduce(
  (groups, one) => groups.set(one.license, [...(groups.get(one.license) ?? []), one]),
  new Map(),
);
const named = (list) =>
  [...new Set(list.map(({ name, version }) => `${name} ${version}`))]
    .sort((a, b) => (a < b ? -1 : 1))
    .join(", ");

const text = `# Third-party notices

What Map Rope ships of others, as installed by \`npm ci --omit=dev\`. Each package's own folder has its licence and its authors;
this list is written by \`node scripts/third-party.mjs\`.

## Fonts

Commissioner, Literata and Red Hat Mono, each under the SIL Open Font License 1.1, from the packages
\`@fontsource-variable/commissioner\`, \`@fontsource-variable/literata\` and \`@fontsource-variable/red-hat-mono\`; the licence's text is in
each of them. Literata is also sent to readers.

## Packages

${[...byLicense]
  .sort(([a], [b]) => (a < b ? -1 : 1))
  .map(([license, list]) => `**${license}**: ${named(list)}.`)
  .join("\n\n")}
`;

if (!process.argv.includes("--check")) writeFileSync(FILE, text);
else if (!existsSync(FILE) || readFileSync(FILE, "utf8") !== text) {
  console.log("THIRD-PARTY.md is not what is installed; run node scripts/third-party.mjs.");
  process.exit(1);
}
