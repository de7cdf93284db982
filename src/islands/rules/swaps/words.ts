// What the screen of swaps says.

import { counted } from "../../../ui/format/counted.ts";

type Value = string | number;

// SwapsScreen.tsx
export const whatSwapsAre =
  "A swap gives readers another address than the one that is written: of a dead link its substitute, of a shop that moved its new host, of a parameter another value. They act one after another when a page is delivered, also on pages that come through us from elsewhere; what was written stays as it is.";
export const fetching = "Fetching the swaps…";
export const swapsInTheirOrder = "Swaps in their order";
export const newSwap = "New swap";
export const noSwapsYet =
  "No swaps yet. Make one for an address that is dead, a host that has moved or a parameter that is to say something else: what it would change is shown before it acts.";
export const move = (sentence: Value, place: Value) => `Move “${sentence}”, now at place ${place}`;
export const remove = (sentence: Value) => `Remove “${sentence}”`;
export const isOn = (sentence: Value, on: boolean) => `${sentence} ${on ? "On" : "Off"}`;
export const changes = (links: number) => `changes ${counted(links, "link", "links")}`;
export const changesNothing = "changes nothing";
export const kept = "Kept in this browser until it is applied.";
export const notInForceYet = "Not in force yet.";
export const workingOver = (version: Value) => `You are working over set ${version}.`;
export const setIsInForce = (version: Value) => `Set ${version} is in force.`;
export const noneInForce = "No swap is in force.";
export const discard = "Discard my changes";
export const applyNow = "Apply now";
export const overtaken = (now: Value) =>
  `Set ${now} came into force while you worked. Discard your changes to see it, or go on over it.`;
export const goOnOver = (now: Value) => `Go on over set ${now}`;
export const applied = (version: Value) => `Set ${version} of swaps is in force; delivered pages follow`;

// SwapForm.tsx
export const theSwap = "The swap";
export const whatIsSwapped = "What is swapped";
export const anAddress = "An address";
export const aHost = "A host";
export const aParameter = "A parameter";
export const addressToLookFor = "Links that lead to";
export const newAddress = "Lead to";
export const hostToLookFor = "Links to the host";
export const newHost = "Lead to the same place on";
export const parameterName = "The parameter";
export const onlyWhere = "Only where it says";
export const onlyWhereHint = "Empty: whatever it says.";
export const isToSay = "Is to say";
export const leaveOut = "Leave it out";
export const leaveOutMeans = "Leave the parameter out";
export const ofLinksTo = "Of links to these domains";
export const ofLinksToHint =
  "One after another, with spaces; *.shop.example is all below it. Empty: all links.";
export const take = "Take into the set";
export const cancel = "Cancel";

// TriedSwaps.tsx
export const whatItWouldChange = "What the set changes";
export const trying = "Trying…";
export const tried = (links: number, pages: number) =>
  `The set changes ${counted(links, "link", "links")} on ${counted(pages, "page", "pages")}.`;
export const changesNone = "The set changes no link that readers get.";
export const outOfReach = (links: number) =>
  `${counted(links, "link more stands", "links more stand")} on pages that readers get as they are written elsewhere: swaps act on pages that come through us.`;
export const before = "Written";
export const after = "Readers get";
export const noWords = "no words";

// EarlierSwaps.tsx
export const earlierSets = "Earlier sets";
export const setOf = (version: Value, by: Value, at: Value) => `Set ${version}, ${by}, ${at}`;
export const empty = "no swaps";
export const putBack = (version: Value) => `Put set ${version} back`;
export const titleSwaps = "Rules: swaps";
