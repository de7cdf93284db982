/**
 * What browsers fetch of the workspace in few files: packages that every screen stands on are one, the parts that all are
 * made of another.
 */
export function fewFiles() {
  return {
    name: "few-files",
    apply: (_config, { isSsrBuild }) => !isSsrBuild,
    config: () => ({
      build: { rollupOptions: { output: { manualChunks: groupOf } } },
    }),
    // Files that wait for each other run in the order in which they happen to arrive: some of them before what they use.
    generateBundle(_options, bundle) {
      const circle = circleOf(bundle);
      if (circle) this.error(`files of the workspace import each other in a circle: ${circle.join(" → ")}`);
    },
  };
}

/** The first circle of files that import each other, by their names; undefined when there is none. */
export function circleOf(bundle) {
  const done = new Set();
  const visit = (name, way) => {
    const at = way.indexOf(name);
    if (at !== -1) return [...way.slice(at), name];
    if (done.has(name)) return undefined;
    for (const next of bundle[name]?.imports ?? []) {
      const circle = visit(next, [...way, name]);
      if (circle) return circle;
    }
    done.add(name);
    return undefined;
  };
  for (const name of Object.keys(bundle)) {
    const circle = visit(name, []);
    if (circle) return circle;
  }
  return undefined;
}

/** By what a module's path holds; a group imports of those above it alone, else its files would wait for each other. */
const GROUPS = [
  [
    "ground",
    [
      "commonjsHelpers",
      "vite/preload-helper",
      "node_modules/react/",
      "node_modules/react-dom/",
      "node_modules/scheduler/",
      "node_modules/@astrojs/react/",
      "node_modules/@tanstack/query-core/",
      "node_modules/@tanstack/react-query/",
      "node_modules/lucide-react/dist/esm/createLucideIcon",
      "node_modules/lucide-react/dist/esm/Icon",
      "node_modules/lucide-react/dist/esm/shared/",
      "node_modules/@radix-ui/primitive/",
      "node_modules/@radix-ui/react-primitive/",
      "node_modules/@radix-ui/react-slot/",
      "node_modules/@radix-ui/react-context/",
      "node_modules/@radix-ui/react-compose-refs/",
      "node_modules/@radix-ui/react-id/",
      "node_modules/@radix-ui/react-use-",
      "node_modules/@radix-ui/react-presence/",
    ],
  ],
  [
    "choices",
    [
      "node_modules/@radix-ui/react-direction/",
      "node_modules/@radix-ui/react-collection/",
      "node_modules/@radix-ui/react-roving-focus/",
      "node_modules/@radix-ui/react-toggle",
      "node_modules/@radix-ui/react-switch/",
      "/src/ui/fields/Choice.tsx",
      "/src/ui/fields/Toggle.tsx",
      "/src/ui/fields/TabChoice.tsx",
      "/src/ui/filter/ViewChoice.tsx",
    ],
  ],
  [
    "popups",
    [
      "node_modules/@floating-ui/",
      "node_modules/react-remove-scroll",
      "node_modules/react-style-singleton/",
      "node_modules/aria-hidden/",
      "node_modules/use-sidecar/",
      "node_modules/use-callback-ref/",
      "node_modules/@radix-ui/react-popover/",
      "node_modules/@radix-ui/react-dropdown-menu/",
      "node_modules/@radix-ui/react-menu/",
      "node_modules/@radix-ui/react-popper/",
      "node_modules/@radix-ui/react-dismissable-layer/",
      "node_modules/@radix-ui/react-focus-",
    ],
  ],
  [
    "days",
    [
      "/src/ui/fields/DayInput.tsx",
      "/src/ui/fields/MomentInput.tsx",
      "/src/ui/format/typed-day.ts",
      "/src/ui/filter/FilterDay.tsx",
    ],
  ],
  [
    "addresses",
    [
      "/src/core/text/cut.ts",
      "/src/core/text/decoded.ts",
      "/src/core/address/host.ts",
      "/src/core/address/address.ts",
      "/src/core/address/may-leave.ts",
      "/src/core/address/path-key.ts",
      "/src/core/address/classify.ts",
      "/src/core/programs/parsed-url.ts",
      "/src/core/programs/recognise.ts",
      "/src/core/programs/build-link.ts",
      "/src/core/programs/sub-id.ts",
      "/src/core/programs/template.ts",
      "/src/core/rules/partners.ts",
      "/src/core/rules/attribute.ts",
      "/src/core/rules/sentence.ts",
      "/src/core/rules/resolve/facts.ts",
      "/src/core/rules/resolve/match.ts",
      "node_modules/entities/dist/escape",
    ],
  ],
  [
    "pages",
    [
      "/src/core/text/variables.ts",
      "/src/islands/pages/LeftBehind.tsx",
      "/src/islands/pages/TextToRead.tsx",
      "/src/islands/pages/known-pages.ts",
      "/src/islands/files/use-pictures.ts",
      "/src/islands/sites/locale-options.ts",
    ],
  ],
  [
    "frame",
    [
      "/src/islands/links/paste/PasteField.tsx",
      "/src/islands/sites/SiteMenu.tsx",
      "/src/islands/sites/site-name.ts",
      "/src/ui/frame/Overlays.tsx",
    ],
  ],
  ["schemas", ["node_modules/zod/", "node_modules/@hookform/"]],
  ["forms", ["node_modules/react-hook-form/", "/src/ui/form/"]],
  [
    "rows",
    [
      "node_modules/@tanstack/react-table/",
      "node_modules/@tanstack/table-core/",
      "node_modules/@tanstack/react-virtual/",
      "node_modules/@tanstack/virtual-core/",
    ],
  ],
];

// Of our own parts, those that are fetched when they are wanted, and those that stand on a group below.
const APART =
  /\/ui\/(charts|choose|reference)\/|\/(SignIn|KeysDialog|WorkTable|WorkHead|Column|Popup\.|FilterSelect|SortedList|Calendar|clock-time)/;
const PART = /\/src\/ui\/|\/src\/core\/\w+\/choices\.ts|\/node_modules\/lucide-react\/dist\/esm\/icons\//;

function groupOf(id) {
  const group = GROUPS.find(([, paths]) => paths.some((path) => id.includes(path)));
  return group?.[0] ?? (PART.test(id) && !APART.test(id) ? "parts" : undefined);
}
