/** Kinds of objects that a history is narrowed to, as their actions name them. */
export const HISTORY_KINDS = [
  ["page", "pages and blocks"],
  ["navigation", "navigation"],
  ["file", "files"],
  ["route", "routes"],
  ["routes", "many routes"],
  ["links", "many links"],
  ["misses", "misses"],
  ["rules", "rules"],
  ["view", "saved views"],
  ["program", "programs"],
  ["credentials", "credentials"],
  ["creative", "creatives"],
  ["network", "networks"],
  ["member", "people"],
  ["site", "the site"],
  ["host", "hosts"],
] as const;

const VERBS: Readonly<Record<string, string>> = {
  add: "added",
  aside: "kept a version beside",
  change: "changed",
  create: "made",
  delete: "deleted",
  directory: "moved to another directory",
  drop: "took away",
  export: "exported",
  heal: "took out what may not stand in",
  import: "brought in",
  invite: "let in",
  keep: "kept",
  mend: "mended",
  move: "moved",
  publish: "published",
  remove: "took out",
  rename: "renamed",
  rest: "put to rest",
  replace: "replaced",
  restore: "brought back",
  retarget: "led elsewhere",
  robots: "told search engines of",
  save: "wrote at",
  schedule: "planned",
  show: "looked at",
  switch: "switched",
  tag: "tagged",
  undo: "took back",
  unpublish: "took from readers",
  unschedule: "planned no more",
  untag: "took a tag off",
  unzero: "counted again from the start",
  upload: "uploaded",
  wake: "woke",
  zero: "counted anew",
};

/** An action in words, such as `page.publish`: “published the page”. */
export function actionWords(action: string): string {
  const [kind = "", what = ""] = action.split(".");
  const verb = VERBS[what] ?? what.replaceAll("-", " ");
  const object = ["navigation", "routes", "links", "misses", "rules", "credentials"].includes(kind)
    ? kind
    : `the ${kind}`;
  return `${verb} ${object}`;
}
