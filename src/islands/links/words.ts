// What the screens of links say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// PasteField.tsx
export const pasteAnAddressOrTypeWordsTo = "Paste an address, or type words to search";
export const pasteAnAddressOrTypeWords = "Paste an address, or type words   ( / )";

// PasteKnown.tsx
export const inANewTab = "in a new tab";
export const inTheSameTab = "in the same tab";
export const answeredBy = (answeredBy: Value) => `Answered by ${answeredBy}.`;
export const aLinkToItIsDelivered = (attributes: Value, word: Value) =>
  `A link to it is delivered ${attributes}${word}.`;
export const linkedOn = "Linked on";
export const makeAShortLink = "Make a short link";
export const linkMarkedWordsToIt = "Link marked words to it";
export const makeARedirect = "Make a redirect";
export const openIt = "Open it";
export const traceIt = "Trace it";
export const itHasAShortLink = "It has a short link:";
export const clicks = (clicks: Value) => `${clicks} clicks`;
export const copy = "Copy";
export const noPageShortLinkOrRedirectHas = (text: Value) =>
  `No page, short link or redirect has “${text}” in it.`;
export const found = "Found";
export const page = "page";
export const shortLink = "short link";

// ShortLinkMaker.tsx
export const newShortLink = "New short link";
export const shortAddressOn = (host: Value) => `Short address on ${host}`;
export const isFree = (address: Value) => `${address} is free`;
export const sayWord = (spoken: Value) => `Say: “${spoken}”`;
export const title = "Title";
export const makeAndCopy = "Make and copy";
export const withAllSettings = "with all settings";

// SnippetKeep.tsx
export const keptAsACreativeOf = (name: Value, name2: Value) => `Kept ${name} as a creative of ${name2}`;
export const keepTheSnippet = "Keep the snippet";
export const aBanner = "a banner";
export const aTextLink = "a text link";
export const wouldBeLeftOut = (leftOut: Value) => `; ${leftOut} would be left out`;
export const aSnippetWith = (word: Value, word2: Value) => `A snippet with ${word}${word2}.`;
export const name = "Name";
export const program = "Program";
export const choose = "choose";
export const keepAsACreative = "Keep as a creative";
