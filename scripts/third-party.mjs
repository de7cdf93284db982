// Writes THIRD-PARTY.md: what is shipped of others, from the lock file; with --check, says whether it is as it should be.
import { existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { globSync } from "tinyglobby";
import { root } from "./install.mjs";

const FILE = join(root, "THIRD-PARTY.md");
const { packages } = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));

/** Where a package is found that one at `from` depends on: nearest first, as Node.js looks. */
function placeOf(name, from) {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf("node_modules/") - 1))) {
    const place = at === "" ? `node_modules/${name}` : `${at}/node_modules/${name}`;
    if (place in packages) return place;
    if (at === "") return undefined;
  }
}

/** Takes in a package with all that it depends on. */
function take(place, taken) {
  if (place === undefined || taken.has(place)) return;
  taken.add(place);
  for (const name of Object.keys(packages[place].dependencies ?? {})) take(placeOf(name, place), taken);
}

// What screens are made of is built in, and installed for development alone.
const imported = globSync(["src/{islands,ui}/**/*.{ts,tsx,css,astro}"], {
  cwd: root,
  ignore: ["**/*.test.*"],
})
  .flatMap((file) => [
    ...readFileSync(join(root, file), "utf8").matchAll(
      /^(?:@?import|\} from|import (?!type )[^;"]*? from) "((?:@[\w-]+\/)?[a-z][\w.-]*)/gm,
    ),
  ])
  .map(([, name]) => name);
const ofScreens = new Set();
for (const name of new Set(imported)) take(placeOf(name, ""), ofScreens);

/** Every package that is installed without the development ones, or built into screens: name, version, licence. */
const shipped = Object.entries(packages)
  .filter(
    ([path, { dev, devOptional, optional }]) =>
      path !== "" && (ofScreens.has(path) || (!dev && !devOptional && !optional)),
  )
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

What Map Rope ships of others: what \`npm ci --omit=dev\` installs, and what its screens are built from. Each package's own folder has its licence and its authors;
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
