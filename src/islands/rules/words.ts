// What the screens of rules say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// EarlierScreen.tsx
export const fetching = "Fetching…";
export const noSetHasBeenInForceYet =
  "No set has been in force yet. Each one that is applied will stand here, with what it changed.";
export const setsNewestFirst = "Sets, newest first";
export const set = (version: Value) => `Set ${version}`;
export const inForce = "in force";
export const theSameRulesAsTheSetBefore = "the same rules as the set before";
export const chooseASetToReadItAnd = "Choose a set to read it and to compare it with the one in force.";
export const setIsInForceTheSameAs = (version: Value) =>
  `Set ${version} is in force, the same as that earlier one`;
export const restoringItWouldChange = "Restoring it would change";
export const nothingItSaysTheSameAsThe = "nothing: it says the same as the set in force";
export const putSetBack = (version: Value) => `Put set ${version} back`;
export const off = " (off)";
export const itHasNoRules = "It has no rules.";

// RulesScreen.tsx
export const fetchingTheRules = "Fetching the rules…";
export const theyActWhenAPageIsDelivered =
  "They act when a page is delivered; what was written stays as it is. What an author sets on one link by hand beats them all; among rules the more particular one decides, then the higher one.";
export const newRule = "New rule";
export const keepTheseRules = "Keep these rules";
export const beginFromAStartingSet = "Begin from a starting set…";
export const rule = (number: Value) => `Rule ${number}`;

// StartingSets.tsx
export const startingSets = "Starting sets";
export const beginWithWhatFitsYourSiteThen =
  "Begin with what fits your site, then change it. Nothing takes effect before you apply it.";
export const nameYour = "Name your";
export const programs = "programs";
export const firstAndTheirLinksAreMarkedAs = "first, and their links are marked as paid.";
export const beginWithThis = "Begin with this";

// SwitchOn.tsx
export const theWaitingSetWillNotComeInto = "The scheduled set is cancelled";
export const notInForceYet = "Not in force yet.";
export const youAreWorkingOverSet = (base: Value) => `You are working over set ${base}.`;
export const isInForce = "is in force.";
export const discardMyChanges = "Discard my changes";
export const atATime = "At a time…";
export const applyNow = "Apply now";
export const setCameIntoForceWhileYouWorked = (version: Value, base: Value) =>
  `Set ${version} came into force while you worked over set ${base}. Nothing of yours is lost.`;
export const seeWhatItChanged = "See what it changed";
export const then = ", then";
export const goOnOverSet = (version: Value) => `go on over set ${version}`;
export const orTakeYourChangesBack = "or take your changes back.";
export const theSetOfThatWasToCome = (madeBy: Value, at: Value, held: Value) =>
  `The set of ${madeBy} that was to come into force ${at} is held back: ${held}`;
export const theSameRules = "the same rules";
export const aSetOfComesIntoForceBy = (madeBy: Value, at: Value, differences: Value) =>
  `A set of ${madeBy} comes into force by itself ${at}: ${differences}.`;
export const cancelIt = "Cancel it";

// Timing.tsx
export const thisSetComesIntoForceByItself = (value: Value) => `This set comes into force by itself ${value}`;
export const comesIntoForce = "Comes into force";
export const letItWaitUntilThen = "Apply it then";

// DisclosureScreen.tsx
export const savedLedgerAndDeliveredPagesFollow = "Saved; ledger and delivered pages follow";
export const save = "Save";
export const keptInThisBrowserNotSavedYet = "Kept in this browser; not saved yet.";
export const saved = "Saved.";
export const aLinkCountsAsPaidWhenIt =
  "A link counts as paid when it is marked sponsored or leads to one of your";
export const throughAShortLinkTooRulesCan =
  ", through a short link too. Rules can name the program or its network.";
export const whatReadersAreTold = "What readers are told";
export const thePageCheckLooksForTheseWords =
  "The page check looks for these words on pages that carry paid links.";
export const placedByItself = "Placed by itself";
export const deliveredPagesThatCarryPaidLinksSay =
  "Delivered pages that carry paid links say it by themselves, below their title";

// MatchFields.tsx
export const whereTheyLead = (title: Value) => `${title}: where they lead`;
export const outside = "outside";
export const insideTheSite = "inside the site";
export const onWhatTheyStand = (title: Value) => `${title}: on what they stand`;
export const wordsAndPictures = "words and pictures";
export const neither = "neither";
export const words = "words";
export const pictures = "pictures";

// MatchLists.tsx
export const domains = "Domains";
export const shopExampleOrShopExampleForIts = "shop.example, or *.shop.example for its subdomains";
export const pages = "Pages";
export const programs2 = "Programs";
export const asTheyStandInPrograms = "as they stand in Programs";
export const networks = "Networks";
export const categoriesOfThePage = "Categories of the page";
export const asThePagesNameTheirs = "as the pages name theirs";

// RuleForm.tsx
export const tab = "Tab";
export const leave = "leave";
export const add = "add";
export const remove = "remove";
export const theRule = (name: Value) => `The rule ${name}`;
export const name = "Name";
export const whichLinks = "Which links";
export const allLinks = "all links";
export const except = "Except…";
export const linksThatAnyOfTheseNamesAre = "Links that any of these names are left alone by this rule.";
export const exceptions = "Exceptions";
export const theSetKeepsThisRuleAsIt =
  "The set keeps this rule as it was until what is marked here is corrected.";
export const close = "Close";
export const whatBecomesOfThem = "What becomes of them";
export const leaveTheTab = "leave the tab";
export const aNewTab = "a new tab";
export const theSameTab = "the same tab";
export const whereTheAuthorWroteSomething = "Where the author wrote something";
export const onlyWhereTheAuthorSetNothing = "only where the author set nothing";
export const replacingWhatTheAuthorSet = "replacing what the author set";

// RuleList.tsx
export const rulesInTheirOrder = "Rules in their order";
export const again = (name: Value) => `${name}, again`;

// RuleRow.tsx
export const moveNowAtPlace = (name: Value, place: Value) => `Move “${name}”, now at place ${place}`;
export const noName = "(no name)";
export const decidesNothing = "decides nothing";
export const decides = (decides: Value) => `decides ${decides}`;
export const copy = (name: Value) => `Copy “${name}”`;
export const remove2 = (name: Value) => `Remove “${name}”`;

// ChangeGroups.tsx
export const whatChanges = "What changes";
export const link = "link";
export const links = "links";
export const page = "page";
export const pages2 = "pages";
export const showMoreOf = (links: Value) => `show more of ${links}`;
export const noWords = "(no words)";
export const plainSameTab = "plain, same tab";

// HostChart.tsx
export const now = (one: Value) => `now ${one}`;
export const then2 = (one: Value) => `then ${one}`;
export const withTheSetAndPaleWithoutIt = ", with the set and (pale) without it";
export const theFirstOf = (mAXHOSTS: Value, hosts: Value) => `; the first ${mAXHOSTS} of ${hosts}`;
export const outsideLinksByHost = (word: Value, word2: Value) => `Outside links by host${word}${word2}`;
export const asAChart = "as a chart";
export const asATable = "as a table";
export const beforeAndAfter = "before and after";
export const asTheyAre = "as they are";
export const outsideLinksOfHostsByTreatmentThe = (shown: Value, word: Value) =>
  `Outside links of ${shown} hosts by treatment, ${word}. The table holds the same numbers.`;
export const host = "Host";
export const treatmentByHost = "Treatment by host";

// TryPanel.tsx
export const drawing = "Drawing…";
export const whatItWouldChange = "What it would change";
export const triedOnTheWholeSite = "Tried on the whole site";
export const trying = "Trying";
export const nothingHasBeenTriedYet = "Nothing has been tried yet.";
export const theSiteHasNoLinksYet = "The site has no links yet.";
export const appliedItWouldChangeNoneOfLinks = (links: Value) =>
  `Applied, it would change none of ${links} links.`;
export const thisSetIsInForceOnLinks = (links: Value, pages: Value) =>
  `This set is in force on ${links} links of ${pages} pages. Change something, and what it would do stands here.`;
export const appliedItChanges = "Applied, it changes";
export const ofLinksOn = (links: Value) => `of ${links} links on`;
export const ofPages = (pages: Value) => `of ${pages} pages.`;

// use-working-set.ts
export const setIsInForceDeliveredPagesFollow = (version: Value) =>
  `Set ${version} is in force; delivered pages follow at once`;

// MatchLists.tsx, too
export const hintOfPages = "/reviews/first, or /reviews/* for all below";

// In the tab of the browser
export const titleRulesEarlier = "Earlier sets";
export const titleRulesDisclosure = "Disclosure";
export const titleRules = "Rules";
