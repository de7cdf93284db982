// What the screens of navigation say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// NavigationAddress.tsx
export const orAnAddressItLandsOn = "Or an address it lands on";
export const address = "Address";
export const pasteAnAddressOrTypeWords = (kinds: Value) => `Paste an address, or type words: ${kinds}`;

// NavigationRow.tsx
export const page = "Page";
export const outsideAddress = "Outside address";
export const shortLink = "Short link";
export const file = "File";
export const heading = "Heading";
export const theEntry = "the entry";
export const move = (label: Value) => `Move ${label}`;
export const noLabel = "(no label)";
export const draftReadersDoNotSeeIt = "draft: readers do not see it";
export const newTab = "new tab";
export const sameTab = "same tab";
export const done = "Done";
export const change = "Change";
export const remove = "Remove";
export const label = "Label";
export const kind = "Kind";
export const landingPageOfTheHeadingNoneIt = "Landing page of the heading (none: it only groups)";
export const chooseAPage = "Choose a page";
export const none = "none";

export const leadsNowhereItself = "leads nowhere itself";

// NavigationScreen.tsx
export const fetchingTheNavigation = "Fetching the navigation…";
export const savedReadersHaveThisNavigationNow = "Saved; readers have this navigation now.";
export const removedFromTheNavigation = "Removed from the navigation";
export const navigation = "Navigation";
export const entry = "Entry";
export const headingWithEntriesBelow = "Heading with entries below";
export const saveForReaders = "Save for readers";
export const fetchTheirs = "Fetch theirs";
export const readersSeeThePagesThatAreMarked =
  "Readers see the pages that are marked “in the navigation”. Add an entry to arrange it yourself.";
export const theNavigationIsEmptyReadersSeeNone = "The navigation is empty; readers see none.";
export const anEntryWithoutALabel = "an entry without a label";
export const dragAnEntryByItsGripTo =
  "Drag an entry by its grip, to the side for its level; or, with an entry’s grip focused, Alt with the arrows.";
export const pagesKeptOut = "Pages kept out";
export const keptOutOfTheNavigation = "Kept out of the navigation";
export const draft = "draft";
export const add = "Add";

// In the tab of the browser
export const titleNavigation = "Navigation";
