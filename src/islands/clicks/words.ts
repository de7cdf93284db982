// What the screens of clicks say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// ClicksBar.tsx
export const day = "Day";
export const hour = "Hour";
export const route = "Route";
export const page = "Page";
export const cameFrom = "Came from";
export const device = "Device";
export const program = "Program";
export const countedBy = "Counted by";
export const shownAs = "Shown as";
export const chart = "Chart";
export const table = "Table";
export const days = "Days";
export const days2 = (value: Value) => `${value} days`;
export const from = "from";
export const to = "to";
export const withThePeriodBefore = "with the period before";

// ClicksChart.tsx
export const clicksPerFromToByPeopleBy = (
  by: Value,
  from: Value,
  to: Value,
  clicks: Value,
  bots: Value,
  prefetches: Value,
) =>
  `Clicks per ${by} from ${from} to ${to}: ${clicks} by people, ${bots} by robots, ${prefetches} prefetches. The table holds the same numbers.`;

// ClicksScreen.tsx
export const clicks = "Clicks";
export const allRoutes = "All routes";
export const onAllRoutesOf = (name: Value) => `on all routes of ${name}`;
export const counting = "Counting…";
export const oneRequest = "One request";
export const requests = (lost: Value) => `${lost} requests`;
export const ofTheseDaysOfAllSitesTogether = (word: Value) =>
  `${word} of these days, of all sites together, could not be kept: the disk did not take them, or they cannot be read. Readers were led on all the same.`;
export const nothingWasCountedInTheseDays = "Nothing was counted in these days.";
export const changesInTheseDays = "Changes in these days";

// ClicksTable.tsx
export const pageOfOurs = "Page of ours";
export const before = "Before";
export const visitors = "Visitors";
export const robots = "Robots";
export const prefetches = "Prefetches";
export const theNumbersOfTheChart = "The numbers of the chart";

// MostUsed.tsx
export const mostUsed = "Most used";
export const noRouteHasBeenUsedInThese = "No route has been used in these days.";

// OthersLately.tsx
export const head = "HEAD";
export const stoodAside = "Stood aside";
export const people = "People";
export const when = "When";
export const notTold = "not told";
export const latestRequestsCountedOrNot = "Latest requests, counted or not";
export const who = "Who";
export const noneInTheseDays = "None in these days.";
export const singleRequests = "Single requests";

// RouteClicks.tsx
export const time = "time";
export const times = "times";
export const inTheLast60DaysItStood = (asides: Value, word: Value) =>
  `In the last 60 days it stood aside ${asides} ${word}: it would have led back to the very address that was asked for.`;
export const clicksInTheLast60Days = (persons: Value) => `Clicks in the last 60 days: ${persons}`;

// Total.tsx
export const clicksByPeopleVisitorsCountedOnceA = (visitors: Value) =>
  `clicks by people, ${visitors} visitors counted once a day`;
export const inThePeriodBefore = (clicks: Value, difference: Value) =>
  `; ${clicks} in the period before (${difference})`;
export const timesARouteStoodAside = (asides: Value) => ` ${asides} times a route stood aside.`;
export const sinceTheCountWasReset = (clicks: Value) => ` Since the count was reset: ${clicks}.`;
export const apartByRobotsPrefetchesHeadRequests = (
  bots: Value,
  prefetches: Value,
  heads: Value,
  word: Value,
  word2: Value,
) => `Apart: ${bots} by robots, ${prefetches} prefetches, ${heads} HEAD requests.${word}${word2}`;
export const theSame = "the same";
export const noneThen = "none then";

// series.ts
export const headRequests = "HEAD requests";

// In the tab of the browser
export const titleClicks = "Clicks";
