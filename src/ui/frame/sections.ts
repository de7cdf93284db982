/** The workspace's sections: what each is called in the head, and the screens that belong to it as words above them. */
export const SECTIONS = {
  pages: {
    word: "Write",
    label: "What is written",
    tabs: [
      ["pages", "Pages"],
      ["blocks", "Shared blocks"],
      ["navigation", "Navigation"],
      ["files", "Files"],
      ["origin", "Pages elsewhere"],
      ["origin/to-do", "To do there"],
      ["origin/front", "On the way to readers"],
      ["pages/transfer", "Import and export"],
    ],
  },
  ledger: {
    word: "Ledger",
    label: "About the ledger",
    tabs: [
      ["ledger", "Links"],
      ["ledger/report", "Report"],
    ],
  },
  routes: {
    word: "Routes",
    label: "About routes",
    tabs: [
      ["routes", "Routes"],
      ["misses", "Misses"],
      ["routes/findings", "Findings"],
      ["trace", "Trace"],
      ["routes/transfer", "Import and export"],
      ["routes/edges", "Edges"],
    ],
  },
  programs: {
    word: "Programs",
    label: "About programs",
    tabs: [
      ["programs", "Programs"],
      ["programs/catalogue", "Find a program"],
      ["earnings", "Earnings"],
    ],
  },
  rules: {
    word: "Rules",
    label: "About rules",
    tabs: [
      ["rules", "Rules"],
      ["rules/swaps", "Swaps"],
      ["rules/disclosure", "Disclosure"],
      ["rules/earlier", "Earlier sets"],
    ],
  },
  clicks: { word: "Clicks", label: "About clicks", tabs: [["clicks", "Clicks"]] },
} as const;

export type Section = keyof typeof SECTIONS;
/** A screen that is named above its section's screens, by its path below the site's. */
export type SectionTab = (typeof SECTIONS)[Section]["tabs"][number][0];

/** The section that a screen belongs to. */
export function sectionOf(tab: SectionTab): Section {
  const names = Object.keys(SECTIONS) as Section[];
  return names.find((name) => SECTIONS[name].tabs.some(([path]) => path === tab))!;
}
