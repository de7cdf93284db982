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
  };
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
  /\/ui\/(charts|choose|form|reference)\/|\/(SignIn|KeysDialog|WorkTable|WorkHead|Column|Popup\.|FilterSelect|SortedList|Choice\.|Toggle\.|DayInput|FilterDay|typed-day|ViewChoice\.|TabChoice\.)/;
const PART = /\/src\/ui\/|\/src\/core\/\w+\/choices\.ts|\/node_modules\/lucide-react\/dist\/esm\/icons\//;

function groupOf(id) {
  if (PART.test(id) && !APART.test(id)) return "parts";
  return GROUPS.find(([, paths]) => paths.some((path) => id.includes(path)))?.[0];
}
