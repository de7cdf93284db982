// What the screen of edges says.

import { counted } from "../../../ui/format/counted.ts";
import type { Edge } from "../../../core/routes/edge/edge.ts";

type Value = string | number;

export const titleEdges = "Routes: edges";
export const fetching = "Fetching the edges…";
export const whatEdgesAre =
  "An edge is a web server of your own that answers redirects and short links at once, and passes everything else on to us. Its clicks are collected and counted here, each once.";
export const noEdgesYet = "No edge answers for us yet.";
export const howToBegin = "On the machine of the edge, with nginx on it:";
export const thenInclude =
  "Then include its “current/maprope.conf” in the http block of nginx. How it is run for years stands in docs/operate/edges.md.";
export const answers = "Answers";
export const leavesToUs = "Leaves to us";
export const clicks = "Clicks";
export const upToDate = (at: Value) => `up to date, written ${at}`;
export const isBehind = (at: Value) => `behind: routes have changed since it was written ${at}`;
export const neverWritten = "not written yet";
export const notHeardOf = (at: Value) => `nothing was heard of it since ${at}`;
export const routes = (number: number) => counted(number, "route of this site", "routes of this site");
export const nothing = "nothing";
export const collectedAt = (clicksOf: number, at: Value) =>
  `${counted(clicksOf, "click", "clicks")} of all sites, last looked for ${at}`;
export const neverCollected = "not collected yet: run “maprope collect” beside it";
export const unreadable = (lines: number) =>
  `${counted(lines, "line of its log", "lines of its log")} could not be read: of another format, or damaged`;
export const waiting = (kilobytes: Value) => `${kilobytes} kB of its log wait`;
export const clockIsOff = (seconds: number, isAhead: boolean) =>
  `Its clock is ${counted(seconds, "second", "seconds")} ${isAhead ? "ahead" : "behind"}: clicks stand at the wrong time`;

const WHY: Readonly<Record<Edge["left"][number]["why"], string>> = {
  pattern: "patterns, prefixes and wildcards: pages come before them",
  page: "gone routes and notices, which have a page",
  time: "routes with a time of their own",
  query: "routes whose query is merged name by name",
  letters: "addresses that are not written in plain letters",
  shared: "addresses that several routes share but for letter case or host",
  back: "routes that would lead back to themselves",
};
export const left = (number: Value, why: Edge["left"][number]["why"]) => `${number}: ${WHY[why]}`;
