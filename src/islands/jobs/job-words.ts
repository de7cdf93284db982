/** What each kind of long work is called on screens, and the screen that it belongs to, below the site's. */
const JOB_WORDS: Readonly<Record<string, readonly [word: string, screen: string]>> = {
  "routes.trace": ["Following addresses", "trace"],
  "routes.health": ["Checking destinations", "routes/findings"],
  "pages.import": ["Importing pages", "pages/transfer"],
  "routes.bulk": ["Changing many routes", "routes"],
  "routes.import": ["Importing routes", "routes/transfer"],
  "links.rebuild": ["Refreshing the ledger", "ledger"],
  "links.bulk": ["Changing many links", "ledger"],
  "rules.try": ["Trying rules", "rules"],
  "swaps.try": ["Trying swaps", "rules/swaps"],
  "earnings.import": ["Importing a report", "earnings"],
  "earnings.pull": ["Asking a network for its report", "earnings"],
  "origin.look": ["Looking at where pages stand", "origin"],
  "origin.read": ["Reading pages elsewhere", "origin"],
  "catalogue.pull": ["Asking a network for its catalogue", "programs/catalogue"],
};

/** The name of a piece of long work in words. */
export function jobWords(name: string): string {
  return JOB_WORDS[name]?.[0] ?? name;
}

/** The screen that it was begun on, below the site's. */
export function screenOf(name: string): string {
  return JOB_WORDS[name]?.[1] ?? "jobs";
}

/** Progress, in words. */
export function stateWords(job: { state: string; done: number; total: number; note: string }): string {
  if (job.state !== "running") return job.state;
  if (job.note) return job.note;
  return job.total > 0 ? `${Math.round((job.done / job.total) * 100)} % done` : "going on";
}
