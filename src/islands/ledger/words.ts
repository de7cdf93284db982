import { counted } from "../../ui/format/counted.ts";

// What the screens of ledger say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// FacetPanel.tsx
export const aNewTab = "a new tab";
export const theSameTab = "the same tab";
export const anyFinding = "any finding";
export const outsideLinksMarked = "Outside links, marked";
export const findings = "Findings";
export const destinationHost = "Destination host";
export const program = "Program";
export const decidedBy = "Decided by";
export const kind = "Kind";
export const window = "Window";
export const wordsOrPicture = "Words or picture";
export const whereItStands = "Where it stands";
export const narrowTheLinks = "Narrow the links";
export const noLongerOnly = "No longer only";
export const more = (rows: Value) => `${rows} more`;

// GroupTable.tsx
export const nothingIsLeftByTheseWordsAnd = "Nothing is left by these words and filters.";
export const showMore = "Show more";
export const host = "Host";
export const page = "Page";
export const outsideLinksByTreatment = "Outside links by treatment";
export const links = "Links";
export const outside = "Outside";
export const newTab = "New tab";
export const linksByHost = "Links by host";
export const linksByPage = "Links by page";
export const noneLeadOutside = "none lead outside";

// KeepView.tsx
export const thisViewIsSavedAs = (value: Value) => `This view is saved as “${value}”`;
export const nameForThisView = "Name for this view";
export const keep = "Save view";

// LedgerBar.tsx
export const whichFormOfThePages = "Which form of the pages";
export const asWritten = "As written";
export const asReadersGetIt = "As readers get it";
export const whatIsListed = "What is listed";
export const byHost = "By host";
export const byPage = "By page";
export const searchLinksByWordsAddressOrPage = "Search links by words, address or page";
export const searchLinks = "Search links";
export const health = "Health";
export const anyHealth = "any health";
export const shortLink = "Short link";
export const shortOrNot = "short or not";
export const byHand = "By hand";
export const byHandOrRule = "by hand or rule";
export const answersBadly = "answers badly";
export const answersWell = "answers well";
export const notLookedAt = "not looked at";
export const rawThoughAShortLinkExists = "raw, though a short link exists";
export const rawWithoutAShortLink = "raw, without a short link";
export const somethingSetByHand = "something set by hand";
export const leftToTheRules = "left to the rules";

// LedgerScreen.tsx
export const fetchingMore = "Fetching more…";
export const noLinkIsLeftByTheseWords = "No link is left by these words and filters.";
export const thereAreNoLinksYet = "There are no links yet.";
export const removeOneOfThemOrShowAll = "Remove one of them, or show all.";
export const everyLinkOfAPageAShared =
  "Every link of a page, a shared block or the navigation stands here as soon as it is saved.";

// ReadAnew.tsx
export const reading = "Reading";
export const readsTheLinksOfEveryPageAgain = "Reads the links of every page again";
export const refresh = "Refresh";

// SavedViews.tsx
export const theViewIsGone = (name: Value) => `Deleted the view “${name}”`;
export const savedViews = "Saved views";
export const views = "Views";
export const noViewIsSavedYetNarrowThe = "No view is saved yet. Narrow the ledger, then give it a name here.";
export const deleteTheView = (name: Value) => `Delete the view ${name}`;

// known-hosts.ts
export const links2 = (number: number) => counted(number, "link", "links");

// link-place.ts
export const pictureWithoutWords = "(picture without words)";
export const noWords = "(no words)";

// ChangeMany.tsx
export const changeTheMarkedLinks = "Change the marked links";
export const inTheRoutesThatTheyGoThrough = "in the routes that they go through, too";
export const inRoutesToo = "in routes too";
export const inWhatReadersGetToo = "in what readers get, too";
export const change = (changed: Value) => `Change ${changed}`;
export const change2 = "Change";
export const publishedPagesChangeAtOnceAndEach =
  "Published pages change at once, and each keeps a version of it.";
export const draftsChangeReadersGoOnGettingWhat =
  "Drafts change; readers go on getting what was published. The navigation has no draft: it changes for readers at once.";
export const changing = "Changing";
export const looking = "Looking";
export const byTheRules = "by the rules";
export const linksTo = "Links to";
export const leadTo = "lead to";
export const linksToTheHost = "Links to the host";
export const goToTheHost = "go to the host";
export const parameter = "Parameter";
export const whatBecomesOfIt = "What becomes of it";
export const isSetTo = "is set to";
export const isSetOrAddedAs = "is set or added as";
export const isRemoved = "is removed";
export const value = "Value";

// ChangePreview.tsx
export const place = "Place";
export const where = "Where";
export const words = "Words";
export const beforeAndAfter = "Before and after";
export const noneOfTheMarkedLinksWouldChange = "None of the marked links would change.";
export const link = "link";
export const links3 = "links";
export const inWord = (word: Value) => `${word} in`;
export const place2 = "place";
export const places = "places";
export const and = "and";
export const route = "route";
export const routes = "routes";
export const theFirstOfThem = (changes: Value) => `; the first ${changes} of them:`;
export const wouldChange = (word: Value) => `would change${word}`;
export const whatWouldChange = "What would change";

// MarkedLinks.tsx
export const markedLinks = "Marked links";

// change-kinds.ts
export const setTabAndRelByHand = "Set tab and rel by hand";
export const leaveToTheRules = "Leave to the rules";
export const replaceADestination = "Replace a destination";
export const replaceAHost = "Replace a host";
export const changeAParameter = "Change a parameter";
export const makeShortLinksOfThem = "Make short links of them";

// use-change.ts
export const linksInPlaces = (links: Value, pages: Value) => `${links} links in ${pages} places`;
export const routes2 = (routes: Value) => `${routes} routes`;
export const leftAsTheyAre = (unchanged: Value) => `; ${unchanged} left as they are`;
export const nothing = "nothing";
export const changed = (parts: Value, left: Value) => `Changed ${parts}${left}`;
export const putBackTheseStayAsTheyAre = (restored: Value, left: Value) =>
  `Put back ${restored}; these stay as they are: ${left}`;
export const putBackAsItWas = "Put back as it was";

// OpenLink.tsx
export const theLink = (link: Value) => `The link ${link}`;
export const theNavigation = "the navigation";
export const theBlock = "the block";
export const thePage = "the page";
export const toTheWordsIn = (word: Value) => `To the words in ${word}`;
export const readersGet = "Readers get";
export const setByHand = (override: Value) => `set by hand: ${override}`;
export const writtenWithoutRelAndTargetAllOf =
  "Written without rel and target; all of it is the rules’ doing.";
export const why = "Why";
export const endsAt = "Ends at";
export const throughTheShortLink = "Through the short link";
export const aShortLinkExists = "A short link exists";
export const clicksFromHere = (clicks: Value) => `${clicks} clicks from here`;
export const paidBy = "Paid by";
export const toLookAt = "To look at";

// ReportScreen.tsx
export const sayThatTheyArePaidSponsored = "say that they are paid (sponsored)";
export const wereWrittenByReadersUgc = "were written by readers (ugc)";
export const vouchForNothingNofollow = "vouch for nothing (nofollow)";
export const arePlainRecommendations = "are plain recommendations";
export const counting = "Counting…";
export const ofAll = "Of all";
export const treatment = "Treatment";
export const asABar = "As a bar";
export const howOutsideLinksAreMarkedOn = (name: Value) => `How outside links are marked on ${name}`;
export const asDeliveredToReaders = (name: Value, madeAt: Value) =>
  `${name}, as delivered to readers, ${madeAt}`;
export const printOrSaveAsPdf = "Print or save as PDF";
export const csv = "CSV";
export const byTreatment = "By treatment";
export const readersMeet = "Readers meet";
export const outsideLinksOfWhichOpenInA = (newTab: Value) =>
  `outside links, of which ${newTab} open in a new tab. Of all of them,`;
export const blockedAddresses = "Blocked addresses";
export const oneAddressIs = "One address is";
export const addressesAre = (notLetOut: Value) => `${notLetOut} addresses are`;
export const notLetOut = (word: Value) => `${word} not let out`;
export const onlyHttpHttpsMailtoAndTelAddresses =
  "Only http, https, mailto and tel addresses and paths of the site are. Of such a link readers get the words alone, of such a picture nothing.";
export const overTime = "Over time";
export const today = "today";
export const countedDailySinceFromTheSecondDay = (day: Value) =>
  `Counted daily since ${day}; from the second day on a chart stands here.`;
export const outsideLinksByTreatmentOnDaysFrom = (days: Value, day: Value, day2: Value) =>
  `Outside links by treatment on ${days} days, from ${day} to ${day2}.`;
export const theFirstOf = (hosts: Value, hostsInAll: Value) => `: the first ${hosts} of ${hostsInAll}`;
export const byHost2 = (word: Value) => `By host${word}`;
export const theFirstOf2 = (pages: Value, pagesInAll: Value) => `: the first ${pages} of ${pagesInAll}`;
export const byPage2 = (word: Value) => `By page${word}`;

// LedgerTable.tsx
export const inWord2 = (link: Value, title: Value) => `${link} in ${title}`;

// columns.tsx
export const clicks = "Clicks";
export const wordsOfTheLink = "Words of the link";
export const ourOwnSite = "our own site";
export const endsAt2 = (host: Value) => `ends at ${host}`;
export const via = (via: Value) => `via ${via}`;
export const inside = "inside";
export const none = "none";
export const byHand2 = "by hand";
export const newWord = "new";
export const same = "same";
export const setByHand2 = "set by hand";
export const nobody = "nobody";
export const exists = " exists";
export const draft = "draft";
export const toTheWordsIn2 = (link: Value, title: Value) => `To the words “${link}” in ${title}`;

// Columns, facets and what was found
export const whereItLeads = "Leads to";
export const deliveredRel = "Delivered rel";
export const tabOfLink = "Tab";
export const pagesOnes = "pages";
export const sharedBlocksOnes = "shared blocks";
export const sharedBlock = "shared block";
export const navigationOnes = "navigation";
export const pagesElsewhere = "pages elsewhere";
export const onManyPagesElsewhere = "many pages elsewhere";
export const onPages = (pages: Value) => `on ${pages} pages`;
export const rulesAskFor = "Rules ask for";
export const thePageThere = "the page there";
export const toDoThere = "to do there";
export const onTheListToDoThere = (links: Value) =>
  `${links} links are on the list of what is to be done there`;
export const foundOf = (found: Value, what: Value) => `${found} ${what}`;

// In the tab of the browser
export const titleLedgerReport = "Report";
export const titleLedger = "Ledger";
