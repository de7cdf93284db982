// What the parts that screens share say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// charts/option.ts
export const peoplePeriodBefore = "People, period before";

// Menu.tsx
export const choices = "Choices";
export const moreTypeAPart = (left: Value) => `${left} more: type a part`;

// MultiChoice.tsx
export const remove = (value: Value) => `Remove ${value}`;
export const nothingHereIsCalled = (unknown: Value) => `Nothing here is called ${unknown}.`;

// api-problem.ts
export const somethingWentWrong = "Something went wrong.";

// api.ts
export const theWorkspaceCannotBeReachedNothingYou =
  "The workspace cannot be reached. Nothing you typed is lost; it is tried again when you are.";

// kept-state.ts
export const restoredWhatWasTypedHereAndNot = "Restored what was typed here and not saved.";
export const thisWasChangedSinceYouTypedHere =
  "This was changed since you typed here; what you typed is kept.";
export const showMine = "Show mine";

// session.ts
export const thatDidNotWork = "That did not work.";

// upload.ts
export const theNetworkIsGone = "the network is gone";

// SortedList.tsx
export const placeOf = (ids: Value, ids2: Value) => `place ${ids} of ${ids2}`;
export const isPickedUpFrom = (id: Value, id2: Value) => `${id} is picked up from ${id2}.`;
export const isOver = (id: Value, id2: Value) => `${id} is over ${id2}.`;
export const isOverNoPlace = (id: Value) => `${id} is over no place.`;
export const isPutDownAt = (id: Value, id2: Value) => `${id} is put down at ${id2}.`;
export const isBackAt = (id: Value, id2: Value) => `${id} is back at ${id2}.`;
export const spacePicksItUpAndPutsIt =
  "Space picks it up and puts it down, the arrows move it, Escape takes it back.";

// TabChoice.tsx
export const tab = "Tab";
export const tabByTheRules = "Tab by the rules";
export const sameTab = "Same tab";
export const newTab = "New tab";

// CsvLink.tsx
export const csv = "CSV";

// FilterBar.tsx
export const narrowTheList = "Narrow the list";
export const narrow = "Narrow";
export const showAll = "show all";

// SignInFields.tsx
export const mailAddress = "Mail address";
export const password = "Password";
export const code = "Code";

// use-saved-form.ts
export const somethingAboveIsToBeCorrected = "Something above is to be corrected.";

// PageState.tsx
export const draft = "Draft";
export const publishedDraftAhead = "Published, draft ahead";
export const published = "Published";

// SignInDialog.tsx
export const signInAndGoOn = "Sign in and go on";
export const yourSessionHasEnded = "Your session has ended";
export const signInAgainAndGoOnWhere =
  "Sign in again, and go on where you are. Nothing that you typed is lost.";

// KeysHelp.tsx
export const keys = "Keys";
export const close = "Close";

// copy.ts
export const copied = (text: Value) => `Copied ${text}`;
export const theBrowserDoesNotAllowCopyingHere =
  "The browser does not allow copying here; mark the address and copy it by hand.";

// use-search-key.ts
export const trDataRowTabindex0TbodyTr = "tr[data-row][tabindex='0'], tbody tr :is(button, a[href], input)";

// HistoryLink.tsx
export const history = "History";
export const itsHistory = "Its history";

// Knot.tsx
export const shortLink = "short link";
export const inThisPage = "in this page";

// OtherReadings.tsx
export const orWasThisMeant = "Or was this meant?";

// WhyList.tsx
export const noRuleSpeaksAboutThisLinkAnd =
  "No rule speaks about this link and nothing is set on it: it is plain and opens in the same tab.";
export const why = "Why";
export const aheadOf = (overridden: Value) => `, ahead of ${overridden}`;

// Notices.tsx
export const readingWhatWasChangedLastThisFollows = "Reading what was changed last; this follows by itself.";
export const altUBringsYouHere = "Alt U brings you here";
export const undo = "Undo";
export const closeThisNotice = "Close this notice";

// WorkBar.tsx
export const stoppedNothingWasChanged = "Stopped. Nothing was changed.";
export const stop = "Stop";

// job.ts
export const stopped = "Stopped.";

// CallArticle.tsx
export const parameters = "Parameters";
export const mayBeLeftOut = ", may be left out";
export const inThe = (value: Value, word: Value) => `in the ${value}${word}`;
export const body = "Body";
export const whatMayGoWrong = "What may go wrong";
export const withoutABody = "Without a body.";
export const example = "Example";

// ShapeFields.tsx
export const mayBeLeftOut2 = "(may be left out)";
export const listOf = "list of ";

// TryIt.tsx
export const tryIt = "Try it";
export const thisIsTheRealThingWhatIt = "This is the real thing: what it changes is changed.";
export const tryWord = (method: Value, path: Value) => `Try ${method} ${path}`;
export const send = "Send";
export const mayBeLeftOut3 = (name: Value) => `${name} (may be left out)`;
export const body2 = (media: Value) => `Body, ${media}`;
export const whatWasAnswered = "What was answered";

// document.ts
export const listOf2 = (items: Value) => `list of ${items}`;
export const objectOf = (additionalProperties: Value) => `object of ${additionalProperties}`;
export const from = (minimum: Value) => `from ${minimum}`;
export const to = (maximum: Value) => `to ${maximum}`;
export const atLeastCharacters = (minLength: Value) => `at least ${minLength} characters`;
export const atMostCharacters = (maxLength: Value) => `at most ${maxLength} characters`;
export const atMost = (maxItems: Value) => `at most ${maxItems}`;
export const unlessSaidOtherwise = (jSON: Value) => `${jSON} unless said otherwise`;

// ColumnChoice.tsx
export const columns = "Columns";

// ColumnWidth.tsx
export const widthOfTheColumn = (word: Value) => `Width of the column ${word}`;
export const drawItToTheSideADouble = "Draw it to the side; a double click gives its width up";

// DataTable.tsx
export const py05 = "py-0.5";
export const py15 = "py-1.5";
export const pl3TextRightTabularNumsWhitespace = "pl-3 text-right tabular-nums whitespace-nowrap";
export const pr3 = (word: Value, word2: Value, className: Value) => `${word} pr-3 ${word2} ${className}`;
export const markAllShown = (all: Value) => `Mark all ${all} shown`;
export const mark = (marking: Value) => `Mark ${marking}`;

// MarkedBar.tsx
export const marked = (marked: Value) => `${marked} marked`;
export const markAll = (total: Value) => `mark all ${total}`;
export const unmarkAll = "Unmark all";

// WorkTable.tsx
export const mark2 = (props: Value) => `Mark ${props}`;

// Choices and columns
export const nothingOfThisName = "Nothing of this name.";
export const asWideAsItNeeds = "as wide as it needs";
export const pixels = (px: Value) => `${px} pixels`;

// DayInput.tsx and Calendar.tsx
export const pickDay = (what: Value) => `Pick a day: ${what}`;
export const theMonthBefore = "The month before";
export const theMonthAfter = "The month after";
export const timeOn = (what: Value) => `${what}: time`;
export const byTheClocksOf = (zone: Value) => `By the clocks of ${zone}`;
export const noSuchDay = "There is no such day.";

// 404.astro
export const nothingHere = "Nothing here";
export const nothingUnderThisAddress = "There is nothing under this address of the workspace";
export const itMayHaveBeenMistyped = "It may have been mistyped.";
export const goToYourPages = "Go to your pages";

// later.tsx
export const thisPartCouldNotBeFetched =
  "This part of the screen could not be fetched. If it stays so, load the screen again.";
export const tryAgain = "Try again";

// Workspace.astro
export const toTheScreen = "To the screen";
export const sections = "Sections";
export const linksRoutesAndPagesOf = (site: Value) => `Links, routes and pages of ${site}.`;
export const isArchived = (site: Value) =>
  `${site} is archived: readers get what they got, and nothing is changed until an owner reopens it.`;
export const youLookAsAReader = "You look at this site as a reader: nothing is changed by you.";
