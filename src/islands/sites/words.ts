import { counted } from "../../ui/format/counted.ts";

// What the screens of sites say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// BinScreen.tsx
export const things = (number: number) => counted(number, "thing", "things");
export const kind = "Kind";
export const whatItWas = "What it was";
export const deleted = "Deleted";
export const by = "By";
export const whatCanBeDone = "What can be done";
export const isBack = (name: Value) => `${name} is back.`;
export const bin = "Bin";
export const whatWasDeletedInTheLastDays = (bINDAYS: Value) =>
  `What was deleted in the last ${bINDAYS} days can be restored, with all that hung on it.`;
export const searchWhatWasDeletedByNameOr = "Search what was deleted by name or address";
export const searchTheBin = "Search the bin";
export const everyKind = "every kind";
export const nothingHereFits = "Nothing here fits.";
export const nothingWasDeletedLately = "Nothing was deleted lately.";
export const showMore = "Show more";

// BringBack.tsx
export const restore = (name: Value) => `Restore ${name}`;
export const name = "name";
export const address = "address";
export const anotherFor = (word: Value, name: Value) => `Another ${word} for ${name}`;
export const restore2 = "Restore";

// DeliveredFields.tsx
export const asEachPagesPathIsWritten = "as each page’s path is written";
export const withoutASlashAtTheEnd = "without a slash at the end";
export const withASlashAtTheEnd = "with a slash at the end";
export const pathsOfPages = "Paths of pages";
export const doesNotCount = "does not count";
export const counts = "counts";
export const letterCase = (sLASHWORDS: Value, word: Value) => `${sLASHWORDS} · letter case ${word}`;
export const readersSeeThem = "Readers see them";
export const everyOtherSpellingLeadsThere308 = "Every other spelling leads there (308).";
export const theRootOfHostsForShortLinks = "The root of hosts for short links leads to";
export const findPagesAndFilesWhateverTheCase =
  "find pages and files whatever the case of the letters asked for";
export const icon = "Icon";
export const theFirstLetterOfTheName = "the first letter of the name";
export const pictureInTabsAndBookmarks = "Picture in tabs and bookmarks";
export const squareAndSimpleEnoughFor16Pixels =
  "Square, and simple enough for 16 pixels. Upload it among the files first.";
export const searchEnginesAndFeeds = "Search engines and feeds";
export const robotsTxtOfYourOwn = "robots.txt of your own";
export const mayReadAll = "may read all";
export const robotsTxt = "robots.txt";
export const userAgentAllow = "User-agent: *\nAllow: /";
export const whereTheSitemapIsStandsBelowIt =
  "Where the sitemap is stands below it by itself. A page or a short link is kept out of results by noindex; what is disallowed here is not even asked.";

// FirstSite.tsx
export const yourFirstSite = "Your first site";

// HistoryScreen.tsx
export const changesFound = (number: number) => counted(number, "change", "changes");
export const when = "When";
export const who = "Who";
export const what = "What";
export const beforeAndAfter = "Before and after";
export const historyOf = (name: Value) => `History of ${name}`;
export const everything = "everything";
export const by2 = (person: Value) => `by ${person}`;
export const ofOneObject = "of one object";
export const nothingThatFitsWasDone = "Nothing that fits was done.";
export const history = "History";
export const putBackAsItWasBefore = "Put back as it was before";
export const putBack = "Put back";
export const whatWasBefore = (name: Value) => `what ${name} was before`;

// MoveShortLinks.tsx
export const moveShortLinks = "Move short links";
export const shortLinksOfThePrimaryHostThat =
  "Short links of the primary host that begin with one directory begin with another from then on; links in texts that lead to them follow.";
export const onTheHost = "On the host";
export const from = "From";
export const to = "To";
export const go = "/go/";
export const theOldAddressesAnswerOn = "the old addresses answer on";
export const publishedPagesFollowAtOnceNotTheir = "published pages follow at once, not their drafts alone";
export const moving = "Moving";
export const looking = "Looking";
export const noShortLinkOfBeginsWith = (host: Value, from: Value) =>
  `No short link of ${host} begins with ${from}.`;
export const move = (routes: Value) => `Move ${routes}`;
export const move2 = "Move";

// NewSiteScreen.tsx
export const aNewSite = "A new site";

// OpenSiteMenu.tsx
export const yourAccount = "Your account";
export const people = "People";
export const settings = "Settings";
export const backgroundTasks = "Background tasks";
export const theApi = "The API";
export const theSiteAsReadersGetIt = "The site as readers get it";
export const signOut = "Sign out";

// PlaceFields.tsx
export const languageOfDatesNumbersAndMoney = "Language of dates, numbers and money";
export const timeZone = "Time zone";
export const thatOfWhoeverLooks = "that of whoever looks";
export const country = "Country";
export const aPhoneNumberThatIsWrittenWithout =
  "A phone number that is written without a country’s code is read as one of this country.";

// RouteDefaultFields.tsx
export const newShortLinks = "New short links";
export const onThePrimaryHost = (shortPrefix: Value) => `${shortPrefix} on the primary host`;
export const noDirectory = "no directory";
export const theShortOneWhereThereIsOne = "the short one, where there is one";
export const beginWith = "Begin with";
export const onThePrimaryHostShortLinksThat =
  "On the primary host; short links that there are stay where they are.";
export const answerWith = "Answer with";
export const whatReadersBringAlong = "What readers bring along";
export const searchEnginesDoNotListThemNoindex = "search engines do not list them (noindex)";
export const robotsDoNotFollowThemNofollow = "robots do not follow them (nofollow)";
export const saySoForAllShortLinksThat = "Say so for all short links that there are";
export const newRedirects = "New redirects";

// SettingsScreen.tsx
export const aPageThatHelps = "a page that helps";
export const theClosestAddress = "the closest address";
export const aChosenAddress = "a chosen address";
export const hostsOf = (name: Value) => `Hosts of ${name}`;
export const moveShortLinksToAnotherDirectory = "Move short links to another directory";
export const apiTokensOfTheInstallation = "API tokens of the installation";
export const exportArchiveOrDeleteTheWholeSite = "Export, archive or delete the whole site";
export const whatMissesGet = "What misses get";
export const disclosureOfPaidLinks = "Disclosure of paid links";
export const placedOnPagesWithPaidLinks = "placed on pages with paid links";
export const placedByHand = "placed by hand";
export const navigation = "Navigation";
export const whoCanSignIn = "who can sign in";
export const settingsWithAScreenOfTheirOwn = "Settings with a screen of their own";

// SiteFields.tsx
export const saved = "Saved";
export const save = "Save";
export const nameOfTheSite = "Name of the site";
export const lineBelowTheName = "Line below the name";
export const languageAndPlace = "Language and place";
export const timeZoneOfWhoeverLooks = "time zone of whoever looks";
export const noCountryForPhoneNumbers = "no country for phone numbers";
export const paidLinksOnAPage = "Paid links on a page";
export const atMostOnAPageOfMore = (paidLimit: Value, paidLimitLong: Value, longWords: Value) =>
  `at most ${paidLimit}, ${paidLimitLong} on a page of more than ${longWords} words`;
export const onAPageOfUsualLength = "On a page of usual length";
export const onALongPage = "On a long page";
export const aPageIsLongFromThisMany = "A page is long from this many words";
export const variables = "Variables";
export const howLongThingsAreKept = "How long things are kept";
export const singleClicksMonthsHistoryMonths = (clickMonths: Value, historyMonths: Value) =>
  `single clicks ${clickMonths} months, history ${historyMonths} months`;
export const singleClicksInMonths = "Single clicks, in months";
export const historyInMonths = "History, in months";
export const whatWasCountedStaysForGoodAfter =
  "What was counted stays for good; after these months of clicks only the counts.";

// SiteForm.tsx
export const empty = "empty";
export const youWriteItsPagesAndMakeIts = "You write its pages and make its links here.";
export const withImportedPages = "with imported pages";
export const htmlOrMarkdownFilesOrAZip = "HTML or Markdown files, or a zip of them.";
export const withImportedRoutes = "with imported routes";
export const aTableOfShortLinksAndRedirects = "A table of short links and redirects, as CSV or JSON.";
export const makeTheSite = "Make the site";
export const itsPagesShortLinksAndRedirectsAre =
  "Its pages, short links and redirects are answered under these hosts.";
export const name2 = "Name";
export const host = "Host";
export const suchAsGardenExample = "Such as garden.example";
export const hostForShortLinksIfYouHave = "Host for short links, if you have one";
export const asUsual = "as usual";
export const thoseOf = (name: Value) => `those of ${name}`;
export const itsRulesToo = "its rules, too";
export const itBegins = "It begins";

// Tokens.tsx
export const mayActAs = "May act as";
export const yourSites = "your sites";
export const everySite = "every site";
export const ofWord = (role: Value, word: Value) => `${role} of ${word}`;
export const ends = "Ends";
export const until = (expiresAt: Value) => `until ${expiresAt}`;
export const noEnd = "no end";
export const used = "Used";
export const lastUsedFrom = (lastUsedAt: Value, lastUsedFrom: Value) =>
  `last used ${lastUsedAt} from ${lastUsedFrom}`;
export const neverUsed = "never used";
export const endIt = "End it";
export const yourApiTokens = "Your API tokens";
export const apiTokens = "API tokens";
export const noTokensYetAScriptNeedsOne = "No tokens yet. A script needs one to call the API; see";
export const theApi2 = "the API";
export const forWhatItCanDo = "for what it can do.";
export const theTokenItIsShownThisOnce = (name: Value) =>
  `The token “${name}”. It is shown this once and kept nowhere; copy it now.`;
export const copy = "Copy";
export const newToken = "New token";
export const nameOfANewToken = "Name of a new token";
export const lastDayNoneNoEnd = "Last day (none: no end)";
export const forTheseSitesNoneForAll = "For these sites (none: for all)";
export const makeToken = "Make token";

// VariableFields.tsx
export const nameInATextOrAnAddress =
  "{{name}} in a text or an address is filled with the value when the page is delivered; a partner’s snippet with a placeholder of such a name is filled by itself.";
export const nameOfVariable = (index: Value) => `Name of variable ${index}`;
export const account = "account";
export const valueOfVariable = (index: Value) => `Value of variable ${index}`;
export const remove = "Remove";
export const anotherVariable = "Another variable";

// WholeSite.tsx
export const exportTheWholeSite = "Export the whole site";
export const pagesRoutesRulesFilesProgramsClicksAnd =
  "pages, routes, rules, files, programs, clicks and history as a zip; without credentials";
export const reopenIt = "Reopen it";
export const archiveIt = "Archive it";
export const archivedSinceReadersGetWhatTheyGot = (archivedAt: Value) =>
  `Archived since ${archivedAt}: readers get what they got, and nothing is changed.`;
export const readersGetWhatTheyGotAndNothing =
  "Readers get what they got, and nothing is changed until it is reopened.";
export const deleteTheSite = "Delete the site";
export const typeToDeleteItForGood = (key: Value) => `Type ${key} to delete it for good`;
export const exportItFirstNothingOfItCan =
  "Export it first: nothing of it can be restored, and its addresses answer no more.";
export const deleteWord = (name: Value) => `Delete ${name}`;

// Hosts.tsx
export const pagesAndRoutesPagesSayThatThey = "pages and routes; pages say that they stand here";
export const shortLinksOnly = "short links only";
export const pagesAndRoutes = "pages and routes";
export const answers = "Answers";
export const routesOfItsOwn = "Routes of its own";
export const linksThatNameIt = "Links that name it";
export const change = "Change";
export const newHost = "New host";
export const anotherHost = "Another host";
export const wwwLowlanternExample = "www.lowlantern.example";
export const addIt = "Add it";

// OpenHost.tsx
export const wasRemoved = (name: Value) => `${name} was removed`;
export const theHost = (name: Value) => `The host ${name}`;
export const asking = "Asking…";
export const doesItLeadHere = "Does it lead here?";
export const remove2 = (name: Value) => `Remove ${name}`;
export const change2 = (name: Value) => `Change ${name}`;
export const goesOnLeadingReadersToTheNew = (name: Value) =>
  `${name} goes on leading readers to the new name, path by path`;
export const whatItAnswered = "What it answered";

// what-hangs-on.ts
export const routeThatAnswersNowhereElse = "route that answers nowhere else";
export const routesThatAnswerNowhereElse = "routes that answer nowhere else";
export const linkInATextThatNamesIt = "link in a text that names it";
export const linksInTextsThatNameIt = "links in texts that name it";
export const linkAnswers = "link answers";
export const linksAnswer = "links answer";
export const itsCode = "its code";
export const theirCodes = "their codes";
export const shortThereAndMayBeInPrint = (shortLinks: Value, word: Value, word2: Value) =>
  ` ${shortLinks} short ${word} there, and ${word2} may be in print.`;
export const nothingHangsOnAlone = (name: Value) => `Nothing hangs on ${name} alone.`;
export const onItHang = (there: Value) => `On it hang ${there}.`;
export const and = (parts: Value, parts2: Value) => `${parts} and ${parts2}`;

// Summaries of settings and hosts
export const aPictureOfTheSite = "a picture";
export const whatLeadsAroundTheSite = "what leads around the site";
export const leadsToHost = (host: Value) => `leads to ${host}`;
export const fromDay = "from";
export const toDay = "to";

// In the tab of the browser
export const titleHistory = "History";
export const titleBin = "Bin";
export const titleSettings = "Settings";
export const titleNewSite = "A new site";
export const titleFirstSite = "The first site";
export const noSiteForYou = "There is no site that you may come into. An owner of one lets you in.";
