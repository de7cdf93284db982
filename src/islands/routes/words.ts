import { counted } from "../../ui/format/counted.ts";

// What the screens of routes say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// RouteFilters.tsx
export const routesFound = (number: number) => counted(number, "route", "routes");
export const switchedOff = "switched off";
export const beforeItsTime = "before its time";
export const afterItsEnd = "after its end";
export const kindOfRoute = "Kind of route";
export const all = "All";
export const shortLinks = "Short links";
export const redirects = "Redirects";
export const gone = "Gone";
export const searchRoutesByAddressDestinationOr = "Search routes by address, destination or title";
export const searchRoutes = "Search routes";
export const host = "Host";
export const everyHost = "every host";
export const forAllHosts = "for all hosts";
export const tag = "Tag";
export const anyTag = "any tag";
export const state = "State";
export const anyState = "any state";
export const answers = "Answers";
export const anyMatch = "any match";
export const health = "Health";
export const anyHealth = "any health";
export const unused = "Unused";
export const usedOrNot = "used or not";
export const unusedForDays = (days: Value) => `unused for ${days} days`;

// RoutesScreen.tsx
export const newGoneAddress = "New gone address";
export const newRedirect = "New redirect";
export const newShortLink = "New short link";
export const fetchingMore = "Fetching more…";
export const noRouteAnswersToTheseWords = "No route answers to these words.";
export const thereAreNoRoutesYet = "There are no routes yet.";
export const tryFewerWordsOrShowAll = "Try fewer words, or show all.";
export const pasteALongAddressIntoTheField =
  "Paste a long address into the field above: it becomes a short link in two keys.";

// RouteFindingsScreen.tsx
export const circles = "Circles";
export const deadEnds = "Dead ends";
export const destinationsThatAnswerBadly = "Destinations that answer badly";
export const chains = "Chains";
export const neverReached = "Never reached";
export const pagesHiddenByARoute = "Pages hidden by a route";
export const alikeButForLetterCase = "Alike but for letter case";
export const severalShortLinksToOnePlace = "Several short links to one place";
export const allRoutesAreInOrder = (routes: Value) => `All ${routes} routes are in order.`;
export const findingsInRoutes = (findings: Value, routes: Value) =>
  `${findings} findings in ${routes} routes`;
export const lookingThroughTheTable = "Looking through the table…";
export const checkAllDestinationsNow = "Check all destinations now";
export const askingDestinations = "Asking destinations";
export const lookedAtAnswerBadly = (checked: Value, bad: Value) =>
  `${checked} looked at, ${bad} answer badly.`;
export const readTheTableAgain = "read the table again";
export const fixInOneStep = (fixes: Value) => `Fix ${fixes} in one step`;
export const showAllKinds = "show all kinds";
export const theFirst200OfAreShown = (here: Value) => `The first 200 of ${here} are shown.`;
export const open = "open";
export const theOther = "the other";

// AnswerFields.tsx
export const status = "Status";
export const seconds = "Seconds";
export const whatTheNoticeSays = "What the notice says";
export const inLessThanSecondsNotEverybodyCan = (nOTICESECONDS: Value) =>
  `In less than ${nOTICESECONDS} seconds, not everybody can ask it to stay (WCAG 2.2.1).`;
export const youAreLeavingUsForAPartners = "You are leaving us for a partner's shop.";
export const queryOfTheRequest = "Query of the request";
export const campaignAndTrackingParametersArrive = "Campaign and tracking parameters arrive.";
export const parametersAdded = "Parameters added";
export const fromBooklet = "from=booklet";

// MoreFields.tsx
export const stayAsTheyAre = "stay as they are";
export const becomeThisRouteOnEveryPage = "become this route, on every page";
export const becomeThisRouteOnChosenPages = "become this route, on chosen pages";
export const otherSpellingsTagsCountingSearch =
  "Other spellings, tags, counting, search engines, links in pages";
export const otherSpellingsPeopleType = "Other spellings people type";
export const pathsSeparatedBySpaces = "Paths, separated by spaces";
export const spellingsPeopleMayType = "Spellings people may type";
export const tags = "Tags";
export const searchEnginesAreTold = "Search engines are told";
export const notToKeepThisAddressNoindex = "not to keep this address (noindex)";
export const notToFollowItNofollow = "not to follow it (nofollow)";
export const countItsClicks = "Count its clicks";
export const linksInPagesToTheRawDestination = "Links in pages to the raw destination";
export const onlyWhatIsDeliveredTheWrittenPages =
  "Only what is delivered; the written pages stay as they are.";
export const onThesePages = "On these pages";

// RouteBench.tsx
export const tryItBeforeItIsSaved = "Try it before it is saved";
export const blog2019EyepiecesBlogFirstNightFrom = "/blog/2019/eyepieces\n/blog/first-night?from=letter";
export const whereTheyWouldEnd = "Where they would end";
export const byThisRoute = "by this route";
export const notByThisRoute = (by: Value) => `not by this route (${by})`;
export const hops = (hops: Value) => `, ${hops} hops`;
export const nothingCanBeTriedUntilTheForm = "Nothing can be tried until the form is right.";

// RouteFindings.tsx
export const advice = "Advice";
export const thisDestinationHasAShortLinkAlready = "This destination has a short link already:";
export const copyThatOne = "copy that one";
export const pointTo = (fix: Value) => `Point to ${fix}`;
export const suggestedAddresses = "Suggested addresses";

// RouteForm.tsx
export const saved = (address: Value) => `Saved ${address}`;
export const save = "Save";
export const makeAndCopy = "Make and copy";
export const makeItGone = "Make it gone";
export const makeRedirect = "Make redirect";
export const enterDoesTheSame = "Enter does the same";
export const thisRouteReplacesThePage = "This route replaces the page";
export const title = "Title";
export const asThePageThereCallsItself = "As the page there calls itself";
export const whatYouWillLookForItBy = "What you will look for it by";

// WhenFields.tsx
export const whatTheSiteHasAtThatAddress = "what the site has at that address";
export const anotherDestination = "another destination";
export const fromWhenUntilWhen = "From when, until when";
export const from = "From";
export const until = "Until";
export const whenItEnds = "When it ends";
export const thenItLeadsTo = "Then it leads to";

// WhereFields.tsx
export const theRestOfThePathIs1 = "The rest of the path is $1 in the destination.";
export const whatEachStandsForIs12 = "What each * stands for is $1, $2 and so on in the destination.";
export const aRegularExpressionForTheWholePath =
  "A regular expression for the whole path; its groups are $1, $2 and so on.";
export const leadsTo = "Leads to";
export const pasteTheLongAddress = "Paste the long address";
export const newPathOrHttps = "/new/path or https://…";
export const itWillLeadTo = (repairs: Value, destination: Value) =>
  `${repairs} It will lead to ${destination}`;
export const address = "Address";
export const isFree = (address: Value) => `${address} is free`;
export const onIt = (host: Value) => `On ${host} it`;
export const sayWord = (spoken: Value) => `Say: “${spoken}”`;

// form-values.ts
export const typeADayAndATime = "Type a day and a time, or leave both empty.";
export const theAddressIsMissingItStartsWith =
  "The address is missing. It starts with a slash, such as /eyepiece.";

// OpenRoute.tsx
export const fetchingTheRoute = "Fetching the route…";
export const copy = "Copy";
export const open2 = "Open";
export const trace = "Trace";
export const deleteWord = "Delete";
export const since = (countedFrom: Value) => ` since ${countedFrom}`;
export const clicksByPeople = (word: Value) => `clicks by people${word}.`;
export const allAboutThem = "All about them";
export const countFromTheBeginning = "count from the beginning";
export const resetTheCount = "reset the count";
export const itsDestination = (note: Value, checkedAt: Value) => `Its destination ${note} (${checkedAt}).`;

// RouteChanges.tsx
export const changes = (items: Value) => `Changes (${items})`;

// RoutePanel.tsx
export const route = "Route";

// ShareRoute.tsx
export const qrCodeOf = (url: Value) => `QR code of ${url}`;
export const saidAloud = "Said aloud:";
export const qrAsSvg = "QR as SVG";
export const qrAsPng = "QR as PNG";

// Retarget.tsx
export const changeDestinations = "Change destinations";
export const inDestinationsReplace = "In destinations, replace";
export const withWord = "with";
export const change = (changed: Value) => `Change ${changed}`;
export const change2 = "Change";
export const whatWouldChange = "What would change";
export const stays = (message: Value) => `stays: ${message}`;
export const noneOfTheMarkedRoutesHasIn = (find: Value) =>
  `None of the marked routes has “${find}” in its destination.`;

// RouteSwitch.tsx
export const on = "on";
export const off = "off";
export const is = (address: Value, word: Value) => `${address} is ${word}`;

// RoutesTable.tsx
export const routes = "routes";

// SelectionBar.tsx
export const markedRoutes = "Marked routes";
export const changeDestinations2 = "Change destinations…";
export const switchOn = "Switch on";
export const switchOff = "Switch off";
export const aTag = "a tag";
export const addTag = "Add tag";
export const removeTag = "Remove tag";

// columns.tsx
export const answer = "Answer";
export const clicks = "Clicks";
export const last = "Last";
export const changed = "Changed";
export const made = "Made";
export const on2 = "On";
export const shortLink = "short link";
export const andBelow = "and below";
export const nothingGone = "nothing: gone";
export const notice = "notice";
export const notCounted = "not counted";
export const never = "never";
export const copy2 = (url: Value) => `Copy ${url}`;
export const from2 = (validFrom: Value) => `from ${validFrom}`;
export const until2 = (validUntil: Value) => `until ${validUntil}`;
export const notYet = "not yet";
export const well = "well";

// use-bulk.ts
export const left = (refused: Value, address: Value, message: Value) =>
  `; ${refused} left: ${address}: ${message}`;
export const changedRoutes = (changed: Value, left: Value) => `Changed ${changed} routes${left}`;
export const putBackChangedSinceAndStayAs = (restored: Value, left: Value) =>
  `Put back ${restored}; ${left} changed since and stay as they are`;
export const putBackRoutes = (restored: Value) => `Put back ${restored} routes`;

// ImportRoutes.tsx
export const line = "Line";
export const whyItIsRefused = "Why it is refused";
export const importRoutesFromAFile = "Import routes from a file";
export const dropACsvOrJsonFileHere =
  "Drop a CSV or JSON file here. The first line of CSV names its columns: kind, host, match, address, destination, status, query, title, tags, enabled, valid_from, valid_until. It is tried before anything is written.";
export const fileOfRoutes = "File of routes";
export const chooseAFile = "Choose a file";
export const trying = "Trying";
export const importing = "Importing";
export const triedNothingSavedYet = (name: Value) => `Tried ${name}, nothing saved yet: `;
export const done = "Done: ";
export const newChangedAsTheyWereRefused = (
  word: Value,
  created: Value,
  updated: Value,
  unchanged: Value,
  refused: Value,
) => `${word}${created} new, ${updated} changed, ${unchanged} as they were, ${refused} refused.`;
export const bringIn = (changes: Value) => `Import ${changes}`;
export const seeTheRoutes = "See the routes";
export const refusedLines = "Refused lines";
export const theFirst300OfRefusedLinesAre = (refused: Value) =>
  `The first 300 of ${refused} refused lines are shown.`;

// RouteTransferScreen.tsx
export const forSpreadsheetsReadBackAsItWas = "for spreadsheets; read back as it was";
export const everythingForOtherSystems = "everything, for other systems";
export const mapsAndAServerThatAnswerThe = "maps and a server that answer the same";
export const apache = "Apache";
export const aVirtualHostThatAnswersTheSame = "a virtual host that answers the same";
export const exportRoutes = "Export routes";
export const whatAServersConfigurationCannotSay =
  "What a server's configuration cannot say (notices, schedules, merged queries) is named at its top and left to Map Rope.";

// ShortenMany.tsx
export const ofTheList = (fresh: number, existing: number, refused: number) =>
  [
    counted(fresh, "new short link", "new short links"),
    existing > 0 ? counted(existing, "there already", "there already") : "",
    refused > 0 ? counted(refused, "refused", "refused") : "",
  ]
    .filter(Boolean)
    .join(", ");
export const shortAddress = "Short address";
export const whatBecomesOfIt = "What becomes of it";
export const madeShortLinks = (lines: Value) => `Made ${lines} short links`;
export const shortenAList = "Shorten a list";
export const oneAddressALineBehindItIf = "One address a line; behind it, if you like, the slug and a title";
export const copyAllOfThem = "Copy all of them";
export const link = "link";
export const links = "links";
export const makeShort = (word: Value, word2: Value) => `Make ${word} short ${word2}`;
export const aShortLinkForEachLine = "A short link for each line";

// use-routes.ts
export const isAnsweredNow = (address: Value) => `${address} is answered now`;
export const deleted = (address: Value) => `Deleted ${address}`;
export const theCountIsResetNothingWasDeleted = "The count is reset; nothing was deleted";
export const countingFromTheBeginning = "Counting from the beginning";

// In the tab of the browser
export const titleRoutesTransfer = "Import and export";
export const titleRoutes = "Routes";
export const titleRoutesFindings = "Findings";
