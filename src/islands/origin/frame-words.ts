// What is said of pages of ours in the look of a page that stands elsewhere.

import { counted } from "../../ui/format/counted.ts";

type Value = string | number;

export const frame = "Pages of ours in their look";
export const whatAFrameIs =
  "Pages and landing pages that are written here can stand in the look of any page there: it is named once, with the place where its text stands.";
export const isFramed = (path: Value) => `Pages that are written here stand in the look of ${path}.`;
export const page = "A page there";
export const showItsParts = "Show it";
export const pointAtIt =
  "Point at where its text stands, and click. Where your browser cannot reach the site, its look is missing here.";
export const thePageThere = "The page there";
export const around = "Around it:";
export const whereDoesItsTextStand = "Or choose one of its parts";
export const wordsIn = (words: number) => counted(words, "word", "words");
export const noAreas = "Nothing in it tells where its text stands: name it by a selector.";
export const contentArea = "Its content area";
export const suchAsMain = "A selector, such as main or #content.";
export const useIt = "Use this look";
export const noFrame = "Use our own look";
export const framed = "Pages that are written here stand in that look";
export const unframed = "Pages that are written here have their own look again";
