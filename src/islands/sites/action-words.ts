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
  ["origin", "where pages stand"],
] as const;

const VERBS: Readonly<Record<string, string>> = {
  add: "added",
  aside: "kept another version of",
  change: "changed",
  create: "made",
  delete: "deleted",
  directory: "moved to another directory",
  drop: "deleted",
  export: "exported",
  heal: "removed what is not allowed in",
  import: "imported",
  invite: "invited",
  keep: "kept",
  mend: "fixed",
  move: "moved",
  name: "named",
  publish: "published",
  remove: "removed",
  rename: "renamed",
  rest: "archived",
  replace: "replaced",
  restore: "restored",
  retarget: "changed the destinations of",
  robots: "changed the robots settings of",
  save: "saved",
  schedule: "planned",
  show: "looked at",
  switch: "switched",
  tag: "tagged",
  undo: "undid a change of",
  unpublish: "unpublished",
  unschedule: "took the plan back of",
  untag: "removed a tag from",
  unzero: "counts from the beginning again",
  upload: "uploaded",
  wake: "reopened",
  zero: "reset the count of",
};

/** An action in words, such as `page.publish`: “published the page”. */
export function actionWords(action: string): string {
  const [kind = "", what = ""] = action.split(".");
  const verb = VERBS[what] ?? what.replaceAll("-", " ");
  const object = ["navigation", "routes", "links", "misses", "rules", "credentials"].includes(kind)
    ? kind
    : kind === "origin"
      ? "where its pages stand"
      : `the ${kind}`;
  return `${verb} ${object}`;
}
