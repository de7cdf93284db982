/** What a key does, in a few words; `keys` are pressed together or stand for one another. */
export interface KeyWord {
  keys: readonly string[];
  does: string;
}

const EVERYWHERE: readonly KeyWord[] = [
  { keys: ["/"], does: "paste an address, or look for something" },
  { keys: ["f"], does: "search this list" },
  { keys: ["Esc"], does: "close what is open" },
  { keys: ["?"], does: "these keys" },
];

const TABLE: readonly KeyWord[] = [
  { keys: ["↓", "↑"], does: "the next row, the one before; from the search, the first row" },
  { keys: ["Page ↓", "Page ↑"], does: "twenty rows on, twenty back" },
  { keys: ["Home", "End"], does: "the first row, the last" },
  { keys: ["Space"], does: "mark the row" },
  { keys: ["Shift ↓", "Shift ↑"], does: "mark while walking" },
  { keys: ["Enter"], does: "open the row" },
];

const OF_SCREEN: Readonly<Record<string, readonly KeyWord[]>> = {
  routes: [
    ...TABLE,
    { keys: ["c"], does: "copy the address" },
    { keys: ["Delete"], does: "delete the route" },
  ],
  ledger: [
    ...TABLE,
    { keys: ["g"], does: "go to the words in their page" },
    { keys: ["c"], does: "copy where the link leads" },
  ],
  programs: [...TABLE, { keys: ["s"], does: "sign in at the program" }],
  misses: [{ keys: ["↓"], does: "from the search, the first row" }],
  trace: [{ keys: ["Ctrl Enter"], does: "follow the addresses" }],
};

const WRITING: readonly KeyWord[] = [
  { keys: ["Ctrl K"], does: "link the marked words or the picture" },
  { keys: ["Alt ↓", "Alt ↑"], does: "the next link, the one before" },
  { keys: ["Ctrl B", "Ctrl I"], does: "strong, emphasis" },
  { keys: ["Ctrl Z", "Ctrl Shift Z"], does: "undo, redo" },
  { keys: ["Ctrl F"], does: "search and replace in the text" },
];

/** The keys of a screen, by its path below the site (`routes`, `pages/6`): its own first. */
export function keysOf(screen: string): { title: string; keys: readonly KeyWord[] }[] {
  const own = /^pages\/\d+$/.test(screen) ? WRITING : OF_SCREEN[screen];
  return [
    ...(own ? [{ title: "On this screen", keys: own }] : []),
    { title: "Everywhere", keys: EVERYWHERE },
  ];
}
