import { counted } from "../../ui/format/counted.ts";

// What the screens of pages say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// LeftBehind.tsx
export const leadsTo = (address: Value, destination: Value) => `${address} leads to ${destination}`;
export const isGone410 = (address: Value) => `${address} is gone (410)`;
export const thePathThatWasLeft = "The path that was left";
export const readersWhoAskFor = "Readers who ask for";
export const nowGetNotFound = "now get “not found”.";
export const redirectThem = "Redirect them…";
export const redirectThemTo = (now: Value) => `Redirect them to ${now}`;
export const sayThatItIsGone = "Say that it is gone";
export const leaveItSo = "Leave it so";

// PageFindings.tsx
export const pageCheck = "Page check";
export const n1Fault = "1 fault";
export const faults = (faults: Value) => `${faults} faults`;
export const n1PieceOfAdvice = "1 piece of advice";
export const piecesOfAdvice = (advice: Value) => `${advice} pieces of advice`;
export const onThisPagesLinks = (word: Value, word2: Value) => `${word}${word2} on this page’s links.`;
export const close = "Close";
export const readThem = "Read them";
export const goThere = "Go there";
export const toTheSettings = "To the settings";

// PageHead.tsx
export const backToThe = "Back to the";
export const aPageWithoutATitle = "A page without a title";
export const title = "Title";
export const deliveredPage = "Delivered page";
export const aboutThisPage = "About this page";
export const whereItStands = "Where it stands";
export const publish = "Publish";
export const path = "Path";
export const readersGetItAt = (url: Value) => `Readers get it at ${url}`;
export const description = "Description";
export const inTheNavigation = "In the navigation";
export const exportAs = "Export as";
export const html = "HTML";
export const markdown = "Markdown";
export const unpublish = "Unpublish";
export const category = "Category";
export const saved = (updatedAt: Value) => `Saved ${updatedAt}`;
export const writing = "Writing…";
export const saving = "Saving…";
export const notSavedYet = "Not saved yet";
export const deleteWord = (kind: Value) => `Delete ${kind}`;

// PlacementFields.tsx
export const place = "Place";
export const footer = "Footer";
export const besideTheText = "Beside the text";
export const shownOn = "Shown on";
export const allPages = "All pages";
export const chosenPages = "Chosen pages";
export const categories = "Categories";
export const pathsStandsForAnything = "Paths; * stands for anything";
export const reviewsResources = "/reviews/*, /resources";
export const reviewsInstruments = "Reviews, Instruments";

// TextToRead.tsx
export const fetchingThePage = "Fetching the page…";
export const text = "Text";

// TextTools.tsx
export const strong = "Strong";
export const emphasis = "Emphasis";
export const heading = "Heading";
export const subheading = "Subheading";
export const list = "List";
export const steps = "Steps";
export const quote = "Quote";
export const link = "Link";
export const picturesOrFilesToPutIntoThe = "Pictures or files to put into the text";
export const pictureOrFile = "Picture or file";
export const pictureFromTheWeb = "Picture from the web";
export const pasteASnippetFromTheClipboard = "Paste a snippet from the clipboard";
export const snippet = "Snippet";

// TextView.tsx
export const noLinksYetMarkWordsInThe =
  "No links yet. Mark words in the text and press Ctrl K; each link gets its knot here.";
export const anAddressThatLeads = "an address that leads";
export const addressesThatLead = (left: Value) => `${left} addresses that lead`;
export const leftOutNowhereForReadersTheWords = (word: Value, shown: Value) =>
  `Left out ${word} nowhere for readers: ${shown}. The words are there.`;

// Writing.tsx
export const fetchingThisView = "Fetching this view…";
export const preview = "Preview";
export const compare = "Compare";
export const textOfThePage = "Text of the page";
export const thisPageHasMillionCharactersItIs = (math: Value) =>
  `This page has ${math} million characters: it is written as source. Split it into several pages to write it as text.`;
export const view = "View";
export const has = "has";
export const have = "have";
export const thisPageOpenToo = (others: Value, word: Value) => `${others} ${word} this page open too.`;

// AttributeChoices.tsx
export const tabAndRel = "Tab and rel";
export const relTokens = "rel tokens";
export const leaveToTheRules = (token: Value) => `Leave ${token} to the rules`;

// ComposerParts.tsx
export const thePictureThatThisWasOpenedOn = "The picture that this was opened on is";
export const theWordsOnWhichThisWasOpened = (words: Value) =>
  `The words “${words}”, on which this was opened, are`;
export const thePlaceThatThisWasOpenedOn = "The place that this was opened on is";
export const notInTheTextAnyMoreNothing = (word: Value) =>
  `${word} not in the text any more. Nothing will be set; close this, and mark the words anew.`;
export const understoodAs = (kINDWORD: Value) => `Understood as ${kINDWORD}`;
export const draft = "(draft)";
export const thatEndsAt = (ends: Value) => `that ends at ${ends}`;
export const meantOtherwiseReadItAs = "Meant otherwise? Read it as";
export const delivered = "Delivered";

// CreativeChoice.tsx
export const putInACreativeOfAProgram = "Put in a creative of a program";
export const noCreativeIsKeptYetOfA =
  "No creative is kept yet of a program that is joined. They stand in the program’s record.";
export const creatives = "Creatives";

// LinkComposer.tsx
export const changeLink = "Change link";
export const newLink = "New link";
export const noPageShortLinkFileOrHeading =
  "No page, short link, file or heading has these words. An address has a dot in its host.";
export const understoodAsWordsToLookFor = "Understood as words to look for.";
export const setLink = "Set link";
export const tryIt = "Try it";
export const removeLink = "Remove link";
export const closeWithoutChanging = "Close without changing";

// WordFields.tsx
export const alternativeText = "Alternative text";
export const words = "Words";
export const titleOnHover = "Title on hover";
export const downloadsTheFileInsteadOfOpeningIt = "Downloads the file instead of opening it in the browser";

// DestinationField.tsx
export const whereItLeads = "Where it leads";
export const pasteAnAddressOrTypeWordsA =
  "Paste an address, or type words: a page, a short link, a file, a heading";
export const whatItCouldLeadTo = "What it could lead to";

// RepairNotes.tsx
export const whatWasCorrected = "What was corrected";

// ShortenHere.tsx
export const shortenIt = "Shorten it";
export const shortAddressOn = (host: Value) => `Short address on ${host}`;
export const isFreeSay = (address: Value, spoken: Value) => `${address} is free. Say: “${spoken}”`;
export const makeAndUseIt = "Make and use it";

// use-destinations.ts
export const itsShortLink = "its short link";

// SnippetReport.tsx
export const theSnippet = "The snippet";
export const takenOverFromTheSnippet = (links: number, pictures: number) =>
  `Taken over from the snippet: ${counted(links, "link", "links")}, ${counted(pictures, "picture", "pictures")}.`;
export const leftOut = (dropped: Value) => `Left out: ${dropped}.`;
export const isFilledFromTheSiteVariable = (variable: Value) =>
  `is filled from the site variable “${variable}”.`;
export const waitsForSomethingOfYoursAndNo =
  "waits for something of yours, and no site variable has such a name. Write it in, or add the variable in the settings.";
export const closeTheReport = "Close the report";

// use-draft.ts
export const restoredWhatThisBrowserHadNotBeen = "Restored what this browser had not been able to save.";

// use-publishing.ts
export const notSaved = "not saved";
export const published = (title: Value) => `Published “${title}”`;
export const unpublished = (title: Value) => `Unpublished “${title}”`;

// use-visits.ts
export const you = "You";
export const savedThisPageInAnotherWindowWhat = (who: Value) =>
  `${who} saved this page in another window; what you see is that version.`;

// known-pages.ts
export const pages = (number: number) => counted(number, "page", "pages");

// PageList.tsx
export const searchPagesByTitlePathOrText = "Search pages by title, path or text";
export const searchPages = "Search pages";
export const showMore = "Show more";
export const untitled = "Untitled";
export const newPage = "New page";
export const deleted = (title: Value) => `Deleted “${title}”`;
export const noPageHasTheseWordsInIts = "No page has these words in its title, path or text.";
export const thereAreNoPagesYet = "There are no pages yet.";
export const tryFewerOrOtherWords = "Try fewer or other words.";
export const newPageBeginsOneItsLinksWill =
  "“New page” begins one; its links will stand on a rope beside the text.";

// PageTable.tsx
export const links = "Links";
export const state = "State";
export const lastSaved = "Last saved";
export const by = (updatedAt: Value, updatedBy: Value) => `${updatedAt} by ${updatedBy}`;
export const pages2 = "Pages";
export const none = "none";
export const linksOutside = (links: Value, outside: Value) => `${links} links, ${outside} outside`;
export const andMore = (links: Value) => `and ${links} more`;

// PicturePanel.tsx
export const picture = "Picture";
export const sayWhatThePictureShowsForWhoever = "Say what the picture shows, for whoever cannot see it.";
export const picturesAddress = "Picture’s address";
export const width = "Width";
export const originalWidth = "original width";
export const side = "Side";
export const inTheText = "in the text";
export const thePictureLeadsTo = (href: Value) => `The picture leads to ${href}.`;
export const thePictureLeadsNowhereYet = "The picture leads nowhere yet.";
export const theCaptionIsWrittenBelowThePicture = (word: Value) =>
  `The caption is written below the picture itself. ${word}`;
export const changeItsLink = "Change its link";
export const linkThePicture = "Link the picture";
export const removePicture = "Remove picture";
export const closeThePicturesPanel = "Close the picture’s panel";

// Uploads.tsx
export const uploads = "Uploads";
export const uploadOf = (name: Value) => `Upload of ${name}`;
export const dismiss = (name: Value) => `Dismiss ${name}`;
export const stopTheUploadOf = (name: Value) => `Stop the upload of ${name}`;

// MarkedSource.tsx
export const everyLinkIsDeliveredAsItIs = "Every link is delivered as it is stored.";
export const ofLinksAreDeliveredOtherwiseThanThey = (changed: Value, pairs: Value) =>
  `${changed} of ${pairs} links are delivered otherwise than they are stored.`;
export const asItIsStored = "as it is stored";
export const stored = (stored: Value) => `stored: ${stored}`;

// PreviewView.tsx
export const asAReaderGetsIt = "As a reader gets it";
export const whichVersion = "Which version";
export const draft2 = "Draft";
export const published2 = "Published";
export const thePageAsAReaderGetsIt = "The page as a reader gets it";
export const deliveredHtml = "Delivered HTML";
export const deliveredHtml2 = "Delivered HTML;";
export const relAndTarget = "rel and target";
export const areMarkedAndBelowEachLinkThat =
  "are marked, and below each link that differs stands what is stored.";
export const fetching = "Fetching…";
export const whyIsDeliveredSo = (words: Value) => `Why “${words}” is delivered so`;
export const pointAtALinkOrTabTo = "Point at a link, or tab to it, to see where it ends and why.";

// KnotButton.tsx
export const newTab = "new tab";
export const noWords = "(no words)";
export const setByHand = (override: Value) => `set by hand: ${override}`;

// Rope.tsx
export const linksOfThisPage = "Links of this page";
export const whichLinks = "Which links";
export const previousLinkAlt = "Previous link (Alt ↑)";
export const nextLinkAlt = "Next link (Alt ↓)";
export const noLinkOfThisPageIs = (filter: Value) => `No link of this page is ${filter}.`;

// ResultPreview.tsx
export const aboutHowItIsFound = "About how it is found";
export const withoutADescriptionAPieceOfThe =
  "Without a description, a piece of the text stands here that a search engine picks.";

// SearchFields.tsx
export const forSearchEnginesAndPreviews = "For search engines and previews";
export const leftOutOfResultsNoindex = "left out of results (noindex)";
export const titleForSearchEngines = "Title for search engines";
export const pictureOfPreviews = "Picture of previews";
export const emptyTheFirstOneOfTheText = "Empty: the first one of the text.";
export const aCopyOf = "A copy of";
export const theAddressThatStandsInResultsIn =
  "The address that stands in results in place of this one (canonical).";
export const languageOfThisPage = "Language of this page";
export const thatOfTheSite = "that of the site";
export const leaveItOutOfResultsSitemapAnd = "leave it out of results, sitemap and feeds (noindex)";

// HtmlView.tsx
export const whatYouChangeIsSavedAsThe =
  "What you change is saved as the draft; everything else stays as it is.";
export const find = "Find";
export const theLastSaveLeftOut = (dropped: Value) => `The last save left out: ${dropped}.`;
export const source = "Source";
export const noLinksInThisSourceYet = "No links in this source yet.";

// use-source-editor.ts
export const htmlOfThePage = "HTML of the page";

// TransferScreen.tsx
export const importPages = "Import pages";
export const dropHtmlOrMarkdownFilesHereOr =
  "Drop HTML or Markdown files here, or a zip of them with their pictures. You see what would become of them before anything is written.";
export const filesToImport = "Files to import";
export const chooseFiles = "Choose files";
export const reading = "Reading…";
export const importing = "Importing";
export const afterwards = "Afterwards";
export const asDrafts = "As drafts";
export const publishedAtOnce = "Published at once";
export const importThem = "Import them";
export const previewNothingSavedYet = "Preview, nothing saved yet";
export const done = "Done";
export const links2 = (links: Value) => `${links} links`;
export const openThePage = "Open the page";
export const exportPages = "Export pages";
export const format = "Format";
export const whichText = "Which text";
export const asItIsStored2 = "As it is stored";
export const asReadersGetIt = "As readers get it";
export const allPagesAsAZip = "All pages, as a zip";
export const titlePathDescriptionAndCategoryGoWith =
  "Title, path, description and category go with each page. What is exported as it is stored can be imported again, and nothing changes.";

// CompareView.tsx
export const thatVersionIsTheDraftAgainThe =
  "That version is the draft again; the one before it was kept aside. Readers get nothing new yet.";
export const nothingToCompareWithYetAVersion =
  "Nothing to compare with yet: a version is kept each time the page is published, and whenever one is kept beside it.";
export const keptVersions = "Kept versions";
export const keptDraft = "Kept draft";
export const fetchingTheVersion = "Fetching the version…";
export const keptBesideIt = "kept beside it";
export const theTitleWas = (title: Value) => ` the title was “${title}”;`;
export const thePathWas = (path: Value) => ` the path was ${path};`;
export const theWordsAreTheSame = "the words are the same";
export const wordsDifferAsMarked = "words differ as marked";
export const fromWhatWasToTheDraft = (
  name: Value,
  createdAt: Value,
  word: Value,
  word2: Value,
  word3: Value,
  links: Value,
) => `From what was ${name} ${createdAt} to the draft:${word}${word2} ${word3}, ${links}.`;
export const makeItTheDraftAgain = "Make it the draft again";
export const noLinkDiffers = "No link differs.";
export const theLinksAreTheSame = "the links are the same";
export const oneLinkDiffers = "one link differs";
export const linksDiffer = (count: Value) => `${count} links differ`;

// ConflictPanel.tsx
export const savedThisPageAtAfterYouHad = (updatedBy: Value, updatedAt: Value) =>
  `${updatedBy} saved this page at ${updatedAt}, after you had opened it. Nothing of yours has been written yet, and nothing is lost: the one you do not go on with is kept under “Compare”.`;
export const saveMineOverIt = "Save mine over it";
export const takeTheirs = "Take theirs";

// LinkDifferences.tsx
export const whatChanged = "What changed";
export const beforeAndAfter = "Before and after";
export const linksThatDiffer = "Links that differ";

// In the tab of the browser
export const titlePagesTransfer = "Import and export";
export const titlePagesId = "Write";
export const titlePages = "Write";
