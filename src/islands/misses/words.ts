// What the screens of misses say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// AnswerWith.tsx
export const answerWithAnotherDestination = (address: Value) => `Answer ${address} with another destination`;
export const anotherAddress = "another address";
export const answer = "Answer";

// MissPolicyForm.tsx
export const aPageThatHelps = "A page that helps";
export const n404WithTheClosestAddressesToChoose = "404, with the closest addresses to choose from.";
export const theClosestAddress = "The closest address";
export const whenExactlyOneIsGoodElseThe = "When exactly one is good; else the page that helps.";
export const aChosenAddress = "A chosen address";
export const alwaysTheSameAtOnceOrAfter = "Always the same, at once or after a notice.";
export const fetching = "Fetching…";
export const savedWhatMissesGet = (message: Value) => `Saved what misses get. ${message}`;
export const savedWhatMissesGet2 = "Saved what misses get";
export const whatMissesGet = "What misses get";
export const save = "Save";
export const theyArriveAt = "They arrive at";
export const resourcesOrHttps = "/resources or https://…";
export const afterANoticeOfSoManySeconds = "After a notice of so many seconds";
export const n0AtOnce = "0: at once";
export const whatTheNoticeSays = "What the notice says";
export const searchEnginesTreatARedirectOfEvery =
  "Search engines treat a redirect of every unknown address as an error page that pretends not to be one, and readers do not learn that what they wanted is missing.";
export const aReaderWhoMeantSomethingElseLands =
  "A reader who meant something else lands on the wrong page without being told.";
export const itWouldHaveHiddenAddressesAskedFor = (addresses: Value, times: Value) =>
  `It would have hidden ${addresses} addresses, asked for ${times} times`;
export const amongThemThatOurOwnPagesLink = (ownFaults: Value) =>
  `, among them ${ownFaults} that our own pages link to:`;
export const on = "on";

// MissesScreen.tsx
export const people = "People";
export const robotsOnly = "Robots only";
export const scanners = "Scanners";
export const whoAsked = "Who asked";
export const searchMissesByAPartOfThe = "Search misses by a part of the address";
export const searchMisses = "Search misses";
export const ignored = "ignored";
export const addressesThatWereAskedForOnceFrom = (misses: Value, lastAt: Value) =>
  `${misses} addresses that were asked for once, from nowhere, were let go of to make room, last on ${lastAt}. What is asked for again, or was led to, is kept.`;
export const showMore = "Show more";
export const nothingHereFits = "Nothing here fits.";
export const nobodyHasMissedAnything = "Nobody has missed anything.";
export const nothingOfThisKindWasAskedFor = "Nothing of this kind was asked for.";
export const whenAReaderAsksForAnAddress =
  "When a reader asks for an address that nothing answers, it stands here, to be answered with a redirect.";

// MissesTable.tsx
export const answerItWith = "Answer it with";
export const misses = "Misses";
export const markedMisses = "Marked misses";
export const answerWithTheFirstSuggestion = (answerable: Value) =>
  `Answer ${answerable} with the first suggestion`;
export const stopIgnoring = "Stop ignoring";
export const ignore = "Ignore";
export const haveNoSuggestion = (chosen: Value) => `${chosen} have no suggestion`;
export const askedFor = "Asked for";
export const times = "Times";
export const andByRobots = (bots: Value) => `and ${bots} by robots`;
export const last = "Last";
export const first = (firstSeen: Value) => `First: ${firstSeen}`;
export const cameFrom = "Came from";
export const andMore = (referrers: Value) => ` and ${referrers} more`;

// Proposals.tsx
export const oneRouteForMany = "One route for many";
export const leadsTo = "leads to";
export const answerWithIt = (answers: Value) => `Answer ${answers} with it`;
export const andMore2 = (answers: Value) => ` and ${answers} more`;
export const timesAskedFor = (times: Value, reason: Value, answers: Value, word: Value) =>
  `${times} times asked for; ${reason}: ${answers}${word}`;

// use-misses.ts
export const nowLeadsTo = (address: Value, destination: Value) => `${address} now leads to ${destination}`;
export const addressesAreAnsweredNow = (routes: Value) => `${routes} addresses are answered now`;
export const isAnsweredNow = (address: Value) => `${address} is answered now`;
export const oneAddressIs = "One address is";
export const addressesAre = (ids: Value) => `${ids} addresses are`;
export const ignoredFromNowOn = "ignored from now on";
export const noLongerIgnored = "no longer ignored";

// In the tab of the browser
export const titleMisses = "Misses";
