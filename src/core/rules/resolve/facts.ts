import type { RuleMatch } from "../rule.ts";

/** What rules look at in a link. */
export interface LinkFacts {
  /** "none": mail and phone, which lead neither outside nor inside. */
  reach: "external" | "internal" | "none";
  /** Lower-case ASCII host that an outside link leads to, as it is written or where our own route leads. */
  domain: string | undefined;
  /** Host where a program's tracked link is known to end, when it is another; rules for a domain look at both. */
  end: string | undefined;
  /** The link goes through a route of ours. */
  short: boolean;
  page: string | undefined;
  category: string | undefined;
  anchor: "text" | "image";
  programs: readonly string[];
  networks: readonly string[];
}

/** The facts of a link of which nothing is known. */
export const NOWHERE: LinkFacts = {
  reach: "none",
  domain: undefined,
  end: undefined,
  short: false,
  page: undefined,
  category: undefined,
  anchor: "text",
  programs: [],
  networks: [],
};

interface Group {
  /** The field of a match that names such groups. */
  field: "programs" | "networks" | "categories";
  /** The groups of this kind that a link belongs to. */
  of(link: LinkFacts): readonly string[];
  /** The page's, and so the same for all of its links. */
  isOfPage: boolean;
  /** What stands before their names in a rule's sentence. */
  words: string;
}

/** The kinds of groups that rules name, the closest first. */
export const GROUPS: readonly Group[] = [
  { field: "programs", of: ({ programs }) => programs, isOfPage: false, words: "of the program" },
  { field: "networks", of: ({ networks }) => networks, isOfPage: false, words: "of the network" },
  { field: "categories", of: ({ category }) => [category ?? ""], isOfPage: true, words: "on pages in" },
];

/** The groups of a link itself, whatever page it stands on. */
export const LINK_GROUPS = GROUPS.filter(({ isOfPage }) => !isOfPage);

/** What of a match is a list of names. */
export const LIST_NAMES = ["domains", "pages", ...GROUPS.map(({ field }) => field)] as const;
export type ListName = (typeof LIST_NAMES)[number];

/** The closest kind of group that a match names. */
export function closestGroup(match: RuleMatch): Group | undefined {
  return GROUPS.find(({ field }) => match[field]);
}
