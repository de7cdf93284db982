// What the screen of pages that stand elsewhere says, in the order of its files.

/** What is filled in. */
type Value = string | number;

// What is counted.
export const ofLinks = ["link", "links"] as const;
export const ofInsideLinks = ["inside link", "inside links"] as const;
export const ofPages = ["page", "pages"] as const;
export const ofSitemaps = ["sitemap", "sitemaps"] as const;
export const ofAddresses = ["address", "addresses"] as const;

// NameOrigin.tsx
export const titleOrigin = "Pages elsewhere";
export const whereDoesTheSiteStand = "Where do the site's pages stand?";
export const addressOfTheSite = "Address of the site";
export const suchAsGarden = "https://garden.example";
export const lookAtIt = "Look at it";
export const nothingIsChangedThere =
  "Its pages are read as search engines do it: gently, by its robots file, and nothing is changed there. Their links come into the ledger, under your rules, reports and programs. Pages that you write here stay as they are.";
export const anotherAddress = "Another address";
export const whatWasReadIsForgotten = "What was read at the address before is forgotten.";
export const writtenHereAgain = "No pages elsewhere any more";
export const forgetting = (pages: Value) =>
  `What was read of ${pages} leaves the ledger and is forgotten here; nothing changes there.`;

// OriginHead.tsx
export const read = (pages: Value) => `${pages} read`;
export const wait = (pages: Value) => `${pages} wait`;
export const lastRead = (when: Value) => `last read ${when}`;
export const looking = "Looking at what there is";
export const reading = "Reading pages";
export const lookAgain = "Look again";
export const readThem = (pages: Value) => `Read ${pages}`;
export const readOn = "Read on";
export const readAllAgain = "Read all again";
export const nothingWasReadYet = "nothing was read yet";

// FoundThere.tsx
export const whatIsThere = "What is there";
export const robotsSays = {
  none: "There is no robots file: all may be read.",
  allows: "Its robots file lets all be read.",
  "forbids-some": "Its robots file keeps parts of it from being read; they are left out.",
  "forbids-all": "Its robots file asks that nothing be read. Let it allow the name MapRope, and look again.",
  unreadable: "Its robots file cannot be read. Until it can be, nothing else is read.",
} as const;
export const itAsksForAPause = (seconds: Value) => `It asks for ${seconds} seconds between two requests.`;
export const documentKinds = {
  robots: "robots file",
  sitemap: "sitemap",
  index: "index of sitemaps",
  feed: "feed",
  page: "front page",
} as const;
export const moreDocuments = (documents: Value) => `${documents} more were found.`;
export const partsOfTheSite = "Parts of the site";
export const atTheRoot = "at the root";
export const whatIsRead = "What is read";
export const allOfIt = "all of it";
export const partsToRead = "Parts to read";
export const leftOut = "Paths that are left out, one a line: their beginnings";
export const suchAsSearch = "/search/";
export const secondsBetween = "Seconds between two requests";
export const pagesAtMost = "Pages at most";
export const save = "Save";
export const saved = "Saved.";
export const hostsItLinksTo = "Hosts that the first pages link to";
export const languages = "Languages";
export const notSaid = "not said";

// ReadingResults.tsx
export const whatWasFound = "What was found";
export const linksOn = (links: Value, pages: Value) => `${links} on ${pages}`;
export const outsideLinks = (links: Value) => `${links} lead outside`;
export const asTheyAreWritten = "As they are marked there";
export const newTabOf = (links: Value) => `${links} of them in a new tab`;
export const rulesWouldChange = (links: Value) => `${links} marked there otherwise than your rules ask`;
export const deadInside = (links: Value) => `${links} to nothing`;
export const redirectedInside = (links: Value) => `${links} by a detour`;
export const programsRecognised = "Programs recognised";
export const untrackedOnes = (links: Value) => `${links} to programs without your tracking`;
export const couldBeShort = (addresses: Value) => `${addresses} of programs without a short link`;
export const standsOnMany = "Stands on many pages";
export const onPages = (pages: Value) => `on ${pages}`;
export const trapsNoticed = "Endless addresses";
export const trapWords = {
  calendar: "a calendar without end",
  filters: "filters that multiply",
  session: "numbers of visitors",
  growing: "a path that grows",
} as const;
export const leftOutOf = (left: Value) => `${left} left out`;
export const noProgramYet = "No link leads to a program that you have joined.";
export const findPrograms = "Programs";

// ReadPages.tsx
export const pagesThere = "Pages there";
export const searchPages = "Search pages";
export const searchPagesByPathOrTitle = "Search pages by path or title";
export const everyState = "Every state";
export const stateOfPages = "State of the pages";
export const page = "Page";
export const state = "State";
export const words = "Words";
export const lastReadOn = "Read";
export const nextTime = "Next";
export const itsLinks = "Its links";
export const readNow = "Read now";
export const whatCanBeDone = "What can be done";
export const noPageHere = "No page is in this state.";
export const showMore = "Show more";
export const leadsTo = (to: Value) => `leads to ${to}`;

export const stateWords = {
  found: "found, not read",
  waiting: "waits",
  read: "read",
  moved: "moved",
  gone: "gone",
  failing: "cannot be read",
  hidden: "asks not to be kept",
  elsewhere: "another address of a page",
  scripts: "made by scripts",
  other: "no page",
  forbidden: "kept from reading by the robots file",
} as const;

// ToDoScreen.tsx
export const titleToDo = "To do there";
export const whatIsToBeDone =
  "What rules and you ask of links in pages that are written elsewhere. Change them there; the next reading ticks off what it finds done.";
export const state2 = "State of what is to be done";
export const todoStates = { open: "to do", done: "done", gone: "gone by itself" } as const;
export const searchToDo = "Search the list";
export const searchToDoByWords = "Search the list by words, address or page";
export const printIt = "Print";
export const sentence = "Where it stands";
export const asItIs = "As it is there";
export const asItIsToBe = "As it is to be";
export const why = "Why";
export const noRel = "no rel";
export const noTarget = "no target";
export const copySource = (words: Value) => `Copy the link “${words}” as it is to be`;
export const nothingToDo = "Nothing is to be done there: every link is as it is asked for.";
export const nothingDoneYet = "Nothing is in this state.";
export const pagesAreWrittenHere = "All pages of this site are written here.";
export const nameWhereTheyStand = "Name where pages stand";
export const doneOn = (day: Value) => `found done ${day}`;

// front/FrontScreen.tsx
export const titleFront = "On the way to readers";
export const ofRequests = ["request", "requests"] as const;
export const ofMisses = ["miss", "misses"] as const;
export const nothingPassedYet =
  "Readers get these pages without us. Let them pass through us as a shadow first: nothing changes for anybody, and what would change is counted here.";
export const whatPassed = "In the last seven days";
export const passedOf = (requests: Value, pages: Value) => `${requests} passed, ${pages} among them.`;
export const wouldBeChanged = (changed: Value, links: Value, pages: Value) =>
  `${changed} of ${links} would be changed, on ${pages}.`;
export const wereChanged = (changed: Value, links: Value, pages: Value) =>
  `${changed} of ${links} were changed, on ${pages}.`;
export const missesOf = (misses: Value) => `${misses} got the closest addresses.`;
export const failuresOf = (requests: Value) => `${requests} could not be answered by the origin.`;
export const samples = "Links that change";
export const link = "Link";
export const asReadersGetIt = "As readers get it";
export const asItWouldBe = "As it would be";

// front/FrontForm.tsx
export const howPagesCome = "How pages come to readers";
export const notThroughUs = "Not through us";
export const notThroughUsWhat = "Readers ask the other system; its pages are only read.";
export const untouched = "Through us, untouched";
export const untouchedWhat = "Short links and redirects are answered, all else passes as it is.";
export const asShadow = "Through us, as a shadow";
export const asShadowWhat = "The same, and it is counted what would change.";
export const changed = "Through us, changed";
export const changedWhat = "Links get their rel and tab by the rules, missing pages their closest addresses.";
export const onlyPaths = "Only on paths that begin with, one a line";
export const onlyPathsHint = "None: on all. The rest passes as a shadow.";
export const suchAsNotes = "/notes/";
export const writtenHereAlone = "Written here alone: paths that begin with, one a line";
export const writtenHereAloneHint = "The other system is never asked for these; what is not here is a miss.";
export const suchAsGuides = "/guides/";
export const setIt = "Set it";
export const seeAPage = "See a page with and without";
export const pathOfIt = "Its path";
export const withChanges = "With what would be changed";
export const withoutUs = "As it is there";
export const passUntouchedNow = "Let all pass untouched now";

// front/FrontCheck.tsx
export const whatWouldHappen = "What would happen";
export const askTheOrigin = "Ask the origin as a reader would";
export const asking = "Asking…";
export const severities = { good: "Good:", hint: "Note:", fault: "Fault:" } as const;
export const toTryIt = "To try it on one machine, a line of its hosts file";
export const nginxBefore = "nginx before us";
export const inDns = "In DNS";
export const copy = "Copy";

// StartingSetTried.tsx
export const tryingAStartingSet = "Trying a starting set of rules";
export const startingSetWould = (name: Value, links: Value, pages: Value) =>
  `There are no rules yet. The starting set “${name}” would change ${links} on ${pages}.`;
export const beginWithIt = "Begin with it";
