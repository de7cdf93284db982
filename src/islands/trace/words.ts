// What the screens of trace say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// RedirectChain.tsx
export const ourRoute = "our route";
export const ourPage = "our page";
export const ourFile = "our file";
export const anotherSpelling = "another spelling";
export const nothingOfOurs = "nothing of ours";
export const ms = (ms: Value) => `${ms} ms`;
export const whatArrived = "What arrived";
export const arrived = "arrived";
export const wasLostAfter = (lastSeen: Value) => `was lost after ${lastSeen}`;
export const theFirstHop = "the first hop";

// TraceScreen.tsx
export const addressesOneALine = "Addresses, one a line";
export const reviewHarbourHttpsShopExampleItem = "/review-harbour\nhttps://shop.example/item?partner=…";
export const it = "it";
export const trace = (word: Value) => `Trace ${word}`;
export const outsideHosts = "Outside hosts";
export const outsideToo = "Outside too";
export const ourSiteOnly = "Our site only";
export const ctrlAndEnterDoesTheSameOutside =
  "Ctrl and Enter does the same. Outside hosts are asked once each, from here.";
export const ways = "Ways";
export const following = "Following";
export const inOrder = "in order,";
export const toLookAt = "to look at";
export const shown = "Shown";
export const all = "All";
export const faultsOnly = "Faults only";
export const pasteAddressesEachIsFollowedThroughOur =
  "Paste addresses: each is followed through our routes as readers are answered now, and then outside, with every hop, who answered it, and whether the tracking arrives.";
export const theFirst500AreShownInAll = (object: Value) => `The first 500 are shown; ${object} in all.`;

// In the tab of the browser
export const titleTrace = "Trace";
