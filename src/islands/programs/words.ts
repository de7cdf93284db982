// What the screens of programs say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// PartnerFields.tsx
export const network = "Network";

// ProgramHere.tsx
export const trackedForYouAt = (program: Value) => `Tracked for you at ${program}`;
export const label = ", label";
export const leadsToWithoutTracking = (program: Value) => `Leads to ${program} without tracking.`;
export const leadsToTrackedFor = (program: Value, foreignId: Value) =>
  `Leads to ${program}, tracked for “${foreignId}”.`;
export const trackIt = "Track it";

// ProgramsScreen.tsx
export const newProgram = "New program";
export const searchProgramsByNameNetworkDomainTag = "Search programs by name, network, domain, tag or note";
export const searchPrograms = "Search programs";
export const state = "State";
export const stateAll = "State: all";
export const networkAll = "Network: all";
export const programs = "programs";
export const noProgramsYet = "No programs yet.";
export const findOneInA = "Find one in a";
export const networksCatalogue = "network’s catalogue";
export const orWriteDownOneThatYouHave =
  ", or write down one that you have joined already: its domains are enough to begin with.";

// Reminders.tsx
export const itsNextStep = "its next step";
export const lookAtItsTermsAgain = (name: Value) => `${name}: look at its terms again`;
export const due = "Due";

// CatalogueScreen.tsx
export const catalogueOf = "Catalogue of";
export const searchTheCatalogueForWhatYourReaders = "Search the catalogue for what your readers would buy";
export const searchTheCatalogue = "Search the catalogue";
export const catalogueAsAFile = "Catalogue as a file";
export const fromAFile = "From a file";
export const networks = "Networks";
export const noNetworkIsKnownYetWriteOne =
  "No network is known yet. Write one down under “Networks”, or take a catalogue that you have as a file (CSV or JSON).";
export const asking = (network: Value) => `Asking ${network}…`;
export const askAgain = (network: Value) => `Ask ${network} again`;
export const asking2 = (network: Value) => `Asking ${network}`;

// Entries.tsx
export const noEntryOfTheCatalogueHasThese = "No entry of the catalogue has these words";
export const entries = (total: Value) => `${total} entries`;
export const theFirstAreShown = (items: Value) => `; the first ${items} are shown`;
export const couldNotBeReadTheFirstEntry = (refused: Value, line: Value, message: Value) =>
  `; ${refused} could not be read (the first: entry ${line}, ${message})`;
export const asGaveIt = (network: Value, pulledAt: Value) => `; as ${network} gave it ${pulledAt}`;
export const besideTheProgramsYouHaveJoined = "Beside the programs you have joined";
export const entriesOfTheCatalogue = "Entries of the catalogue";

// NetworkForm.tsx
export const saved = (name: Value) => `Saved ${name}`;
export const saveNetwork = "Save network";
export const hostsThatItsTrackedLinksGoTo = "Hosts that its tracked links go to";
export const itsCatalogueJsonOrCsv = "Its catalogue (JSON or CSV)";
export const itsReportCsv = "Its report (CSV)";

// entry-columns.tsx
export const program = "Program";
export const pays = "Pays";
export const theirEpc = "Their EPC";
export const none = "none";
export const ourEpc = "Our EPC";
export const cookie = "Cookie";
export const days = (cookieDays: Value) => `${cookieDays} days`;
export const leadsTo = "Leads to";
export const withYou = "With you";
export const as = (name: Value) => ` as ${name}`;
export const yourRecord = (children: Value) => `your record: ${children}`;
export const standsAmongYourProgramsAsConsidering = (name: Value) =>
  `${name} stands among your programs as “considering”`;
export const considerIt = "Consider it";
export const hasTheCataloguesTerms = (name: Value) => `${name} has the catalogue’s terms`;
export const takeOverTheseTerms = "Take over these terms";

// ProgramChart.tsx
export const epc = "EPC";
export const theirEpc30Days = "Their EPC, 30 days";
export const ourEpc90Days = "Our EPC, 90 days";
export const earned = "Earned";
export const earnedIn90Days = "Earned in 90 days";
export const clicks = "Clicks";
export const clicksIn90Days = "Clicks in 90 days";
export const programsSideBySide = "Programs side by side";
export const compareBy = "Compare by";
export const theFirstInTheTablesOrder = (mAXBARS: Value) => `The first ${mAXBARS} in the table’s order.`;
export const markRowsToCompareOnlyThose = (word: Value) => `${word} Mark rows to compare only those.`;
export const ofTheSameFiguresStandInThe = (word: Value, rows: Value) =>
  `${word} of ${rows}; the same figures stand in the table.`;

// columns.tsx
export const theirEpc7Days = "Their EPC, 7 days";
export const theirEpc90Days = "Their EPC, 90 days";
export const ourEpc7Days = "Our EPC, 7 days";
export const ourEpc30Days = "Our EPC, 30 days";
export const toItsPayout = "To its payout";
export const links = "Links";
export const nextStep = "Next step";
export const tags = "Tags";
export const days2 = (getValue: Value) => `${getValue} days`;
export const untracked = (untracked: Value) => `${untracked} untracked`;
export const per100ClicksOnShortLinks = "Per 100 clicks on short links";
export const per100ClicksAsTheNetworkCounted =
  "Per 100 clicks as the network counted them, on all tracked links";
export const ofWord = (money: Value, money2: Value) => `${money} of ${money2}`;
export const pays2 = (due: Value) => `pays ${due}`;

// Account.tsx
export const thePasswordIsOnTheClipboard = "The password is on the clipboard";
export const theNameIsOnTheClipboard = "The name is on the clipboard";
export const signingIn = "Signing in";
export const signInThere = "Sign in there";
export const copyName = "Copy name";
export const copyPassword = "Copy password";
export const showBoth = "Show both";
export const changeThem = "Change them";
export const keepANameAndPassword = "Keep a name and password";
export const hiddenAgainInSomeSecondsNotedIn = "hidden again in some seconds; noted in the audit log";

// BuildLink.tsx
export const buildALink = "Build a link";
export const buildATrackedLinkTo = "Build a tracked link to";
export const pasteAProductsAddressOn = (domains: Value) => `Paste a product’s address on ${domains}`;
export const itWillStandOn = "It will stand on";
export const noPageOfOurs = "no page of ours";
export const label2 = "Label";
export const freeTextIfThePatternHasText = "free text, if the pattern has {text}";
export const buildAndCopy = "Build and copy";
export const theReportWillNameIt = "The report will name it";
export const itHasNoLabelOfItsOwn = "It has no label of its own.";
export const copy = "Copy";
export const makeItShort = "Make it short";
export const seeWhetherTheIdArrives = "See whether the ID arrives";

// CreativeForm.tsx
export const change = (name: Value) => `Change ${name}`;
export const newCreative = "New creative";
export const snippet = "Snippet";
export const whereTheProgramLeavesAPlaceFor =
  "Where the program leaves a place for your account, write {id}; for the label of the place, {sub}.";
export const name = "Name";
export const seeWhatChanges = "See what changes";
export const changeIt = "Change it";
export const keepIt = "Keep it";
export const leaveIt = "Leave it";
export const placeFollows = "place follows";
export const placesFollow = (uses: Value) => `${uses} places follow`;
export const itsInDraftsInWhatReadersGet = (word: Value) => `Its ${word} in drafts; in what readers get, too`;

// Creatives.tsx
export const deleted = (name: Value) => `Deleted ${name}`;
export const creatives = "Creatives";
export const noneKeptYetPasteABannerOr =
  "None kept yet. Paste a banner or text link as the program gives it out.";
export const banner = (word: Value) => `banner${word}`;
export const textLink = "text link";
export const countsWhoSeesIt = ", counts who sees it";
export const copyReadyToPaste = "Copy ready to paste";
export const deleteWord = (name: Value) => `Delete ${name}`;
export const notKeptOfIt = (leftOut: Value) => `Not kept of it: ${leftOut}.`;
export const usedNowhere = "Used nowhere.";
export const usedOn = "Used on ";

// CredentialsForm.tsx
export const keptEncrypted = "Kept, encrypted";
export const forgotten = "Forgotten";
export const nameToSignInWith = "Name to sign in with";
export const password = "Password";
export const keep = "Keep";
export const forget = "Forget";

// OpenProgram.tsx
export const theLinksOfStayAsTheyAre = (name: Value) => `The links of ${name} stay as they are`;
export const since = (stateDates: Value) => `since ${stateDates}`;
export const on = (network: Value) => ` on ${network}`;
export const pays3 = (word: Value, program: Value) => `${word}; pays ${program}.`;
export const before = (earlier: Value) => `Before: ${earlier}.`;
export const link = "link";
export const links2 = "links";
export const withoutTracking = (untracked: Value) => `${untracked} without tracking`;
export const trackThem = "track them";
export const itsShortLinks = "its short links";
export const wereClickedTimesIn90DaysAnd = (clicks: Value) => `were clicked ${clicks} times in 90 days and`;
export const nothing = "nothing";
export const earned2 = (earned: Value) => `earned ${earned}`;

// ProgramForm.tsx
export const terms = "Terms";
export const saveTerms = "Save terms";
export const addProgram = "Add program";
export const saved2 = "Saved.";
export const notSavedYet = "Not saved yet.";
export const domainsThatItsLinksLeadTo = "Domains that its links lead to";
export const shopExampleShopExample = "shop.example, *.shop.example";
export const itsSite = "Its site";
export const whereYouSignIn = "Where you sign in";

// ProgramLinks.tsx
export const linksWereBuiltOnTheEarlierTerms =
  "Links were built on the earlier terms. They become links on the new ones:";
export const theseLinksLeadToTheProgramWithout =
  "These links lead to the program without your tracking. They become tracked ones:";
export const theProgramIsClosedItsLinksBecome = "The program is closed. Its links become:";
export const whatBecomesOfItsLinks = "What becomes of its links";
export const become = "Become";
export const thePlainAddressOfThePage = "the plain address of the page";
export const wordsWithoutALinkShortLinksGo = "words without a link; short links go on to the plain address";
export const linksOf = (name: Value) => `links of ${name}`;
export const inWhatReadersGetToo = "in what readers get, too";
export const change2 = (changed: Value) => `Change ${changed}`;
export const nothingToChange = "Nothing to change";
export const leaveThem = "Leave them";
export const changing = "Changing";
export const looking = "Looking";

// SnippetReading.tsx
export const whatIsInIt = "What is in it";
export const aBanner = "A banner";
export const aTextLink = (words: Value) => `A text link, “${words}”`;
export const aDotOfOnePixelCountsWho = "; a dot of one pixel counts who sees it";
export const willBeLeftOut = (leftOut: Value) => `; ${leftOut} will be left out`;
export const whatIs = "What is";
export const ourAccount = "Our account";
export const theLabelOfThePlace = "The label of the place";

// TermFields.tsx
export const howItsLinksAreBuilt = "How its links are built";
export const linkTemplate = "Link template";
export const httpsGoNetworkExampleCIdTo = "https://go.network.example/c/{id}?to={destination}&sub={sub}";
export const idIsYourAccountDestinationThePage =
  "{id} is your account, {destination} the page, {sub} the label; or {destination}?partner={id} where they stand behind the page’s own address.";
export const trackingId = "Tracking ID";
export const subIdsAreMadeAs = "Sub-IDs are made as";
export const sitePagePositionText = "{site} {page} {position} {text}";
export const atMost = "At most";
export const shortLinksAreNamed = "Short links are named";
export const programPageProduct = "{program} {page} {product}";
export const whatItPays = "What it pays";
export const commissionIn = "Commission in";
export const paidForA = "Paid for a";
export const currency = "Currency";
export const cookieDays = "Cookie, days";
export const paysOutFrom = "Pays out from";
export const onDayOfTheMonth = "On day of the month";
export const payoutMethod = "Payout method";
export const paidOutUntil = "Paid out until";
export const n30Days = "30 days";
export const n90Days = "90 days";
export const tracksOnTheWay = "Track links on the way to readers";
export const tracksOnTheWayMeans =
  "On pages that come through us from elsewhere, links to it without our tracking get it";
export const paysByTheReferrer = "Pays by the referrer";
export const paysByTheReferrerNoreferrerWouldCost =
  "Pays by the referrer: noreferrer would cost the commission";
export const notes = "Notes";
export const on2 = "on";
export const lookAtTermsAgain = "Look at terms again";
export const namesInReports = "Names in reports";
export const besidesItsNameOneALine = "besides its name, one a line";
export const contacts = "Contacts";

// keep-creative.ts
export const kept = (name: Value) => `Kept ${name}`;
export const placesFollow2 = "places follow";
export const changed = (name: Value, word: Value) => `Changed ${name}${word}`;

// program-values.ts
export const newWord = "New";

// In the tab of the browser
export const titleProgramsCatalogue = "Find a program";
export const titlePrograms = "Programs";
