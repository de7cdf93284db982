// What the screens of earnings say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// ColumnMapping.tsx
export const orderOrTransaction = "Order or transaction";
export const date = "Date";
export const commission = "Commission";
export const saleAmount = "Sale amount";
export const currency = "Currency";
export const state = "State";
export const saleOrLead = "Sale or lead";
export const subId = "Sub-ID";
export const program = "Program";
export const theirClicks = "Their clicks";
export const columnsAsTheyWereNamedTheLast = "Columns as they were named the last time";
export const whatItsColumnsSeemToSay = "What its columns seem to say";
export const notInThisReport = "not in this report";
export const allInOneCurrency = "All in one currency";
export const eur = "EUR";
export const datesAreWritten = "Dates are written";
export const decimals = "Decimals";
export const theFirstRows = "The first rows";

// EarningsScreen.tsx
export const page = "Page";
export const link = "Link";
export const day = "Day";
export const month = "Month";
export const network = "Network";
export const by = "By";
export const ofTheLast = "Of the last";
export const days = (one: Value) => `${one} days`;
export const allPrograms = "All programs";
export const counting = "Counting…";
export const nothingWasEarnedInTheseDaysAs =
  "Nothing was earned in these days as far as is known. Import a network’s report below, and it stands here.";
export const leads = (leads: Value) => `, ${leads} leads`;
export const noClicks = "no clicks";
export const clicksThatTheNetworksCounted = "clicks that the networks counted";
export const clicksOnShortLinks = "clicks on short links";
export const per100 = (money: Value, word: Value) => `${money} per 100 ${word}`;
export const earnedApprovedPendingTakenBackSales = (
  money: Value,
  money2: Value,
  money3: Value,
  sales: Value,
  word: Value,
  word2: Value,
) => `earned (${money} approved, ${money2} pending), ${money3} taken back; ${sales} sales${word}; ${word2}.`;
export const theNetworksCountedOnAllTrackedLinks = (theirClicks: Value) =>
  `; the networks counted ${theirClicks} on all tracked links`;
export const clicksOnShortLinksToPrograms = (clicks: Value, word: Value) =>
  `${clicks} clicks on short links to programs${word}.`;
export const n1RowBelongs = "1 row belongs";
export const rowsBelong = (unmatched: Value) => `${unmatched} rows belong`;
export const toNoProgramThatIsKnown = (word: Value) => `${word} to no program that is known.`;
export const manyClicksAndNothingEarned = (silent: Value) => `Many clicks and nothing earned: ${silent}.`;
export const approved = (currency: Value) => `Approved (${currency})`;
export const pending = (currency: Value) => `Pending (${currency})`;
export const earnedByTheSameFiguresStandIn = (wORD: Value) =>
  `Earned by ${wORD}; the same figures stand in the table.`;
export const moreThatEarnedLessTheCsvHas = (left: Value) =>
  `${left} more that earned less; the CSV has all of them.`;

// EarningsTable.tsx
export const figuresOfEachGroup = "Figures of each group";
export const clicks = "Clicks";
export const networksClicks = "Network’s clicks";
export const sales = "Sales";
export const conversion = "Conversion";
export const approved2 = "Approved";
export const pending2 = "Pending";
export const takenBack = "Taken back";
export const byTheNetworksClicks = "by the network’s clicks";

// ImportReport.tsx
export const importANetworksReport = "Import a network’s report";
export const networkOfTheReport = "Network of the report";
export const seenFromTheFile = "Seen from the file";
export const askForIt = (network: Value) => `Ask ${network} for it`;
export const reportOfANetwork = "Report of a network";
export const chooseAFile = "Choose a file";
export const csvAsOftenAsYouLikeNothing = "CSV, as often as you like: nothing is counted twice.";
export const asking = (network: Value) => `Asking ${network}`;
export const tryIt = "Try it";
export const importIt = "Import it";
export const trying = "Trying";
export const importing = "Importing";
export const whoseReportIsItNothingInIt = "Whose report is it? Nothing in it tells; name the network above.";
export const aReportOf = (network: Value, why: Value) => `A report of ${network}: ${why}.`;
export const thisLooksLikeAReportOf = (name: Value, why: Value) =>
  `This looks like a report of ${name}: ${why}.`;
export const itIsS = (name: Value) => `It is ${name}’s`;
export const noItIsS = (network: Value) => `No, it is ${network}’s`;

// ReportOutcome.tsx
export const previewNothingSavedYet = "Preview, nothing saved yet: ";
export const done = "Done: ";
export const n1Row = "1 row";
export const rows = (rows: Value) => `${rows} rows`;
export const withCountsOfClicksAlone = (clickRows: Value) => `; ${clickRows} with counts of clicks alone`;
export const newChangedAsTheyWereRefused = (
  word: Value,
  word2: Value,
  created: Value,
  changed: Value,
  unchanged: Value,
  refused: Value,
  word3: Value,
) =>
  `${word}${word2}, ${created} new, ${changed} changed, ${unchanged} as they were, ${refused} refused${word3}.`;
export const doubtfulWithTheNameOfOneProgram = (doubtful: Value) =>
  `, ${doubtful} doubtful (with the name of one program and a sub-ID that was issued for another)`;
export const matchedToAPageToAProgram = (
  matchedToPages: Value,
  matchedToPrograms: Value,
  unmatched: Value,
  word: Value,
) =>
  `Matched: ${matchedToPages} to a page, ${matchedToPrograms} to a program, ${unmatched} to nothing known${word}.`;
export const line = (line: Value) => `Line ${line}:`;

// UnmatchedRows.tsx
export const looking = "Looking…";
export const inTheReport = "In the report";
export const namesNoProgram = "names no program";
export const rows2 = "Rows";
export const earned = "Earned";
export const subIds = "Sub-IDs";
export const orders = "Orders";
export const latest = "Latest";
export const belongsTo = "Belongs to";
export const rowsWithoutAProgram = "Rows without a program";
export const noProgramOfTheNetworkHasThis =
  "No program of the network has this name, and no sub-ID in them was issued for one, or the two contradict each other. Say whose they are: these rows are its own at once, and those of later reports.";
export const inReportsIs = (word: Value, name: Value) => `“${word}” in reports is ${name}`;
export const belongsTo2 = (word: Value) => `${word} belongs to`;
export const saving = "Saving…";
export const choose = "choose";

// In the tab of the browser
export const titleEarnings = "Earnings";
