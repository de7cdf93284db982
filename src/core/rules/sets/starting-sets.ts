import type { Rule } from "../rule.ts";
import type { Partner } from "../../programs/partner.ts";

/** A set of rules to begin with, and what it is for. */
export interface StartingSet {
  key: string;
  name: string;
  /** For whom it is, and what it does. */
  about: string;
  rules: readonly Rule[];
}

const rule = (
  name: string,
  match: Rule["match"],
  set: Rule["set"],
  mode: Rule["mode"],
  except?: Rule["except"],
): Rule => ({ name, enabled: true, match, set, mode, ...(except ? { except } : {}) });

/** The sets that a site can begin with; where partners are known, their links are marked as paid. */
export function startingSets(partners: readonly Partner[]): StartingSet[] {
  const programs = partners.map(({ name }) => name);
  const needing = partners.filter(({ needsReferrer }) => needsReferrer).map(({ name }) => name);
  const paid =
    programs.length > 0
      ? [rule("Paid links say so", { programs }, { sponsored: "on", nofollow: "on" }, "overwrite")]
      : [];
  const referrer =
    needing.length > 0
      ? [
          rule(
            "Partners that pay by the referrer get it",
            { programs: needing },
            { noreferrer: "off" },
            "overwrite",
          ),
        ]
      : [];
  const newTab = rule(
    "Outside links open in a new tab",
    { destination: "external" },
    { target: "new" },
    "fill",
  );
  const inside = rule(
    "Inside links stay in the tab",
    { destination: "internal" },
    { target: "same", nofollow: "off", sponsored: "off", ugc: "off" },
    "fill",
  );
  return [
    {
      key: "editorial",
      name: "Editorial magazine",
      about:
        "Outside links open beside the page and count as recommendations; only what partners pay for is marked, whatever its author set.",
      rules: [...paid, ...referrer, newTab, inside],
    },
    {
      key: "shop-partner",
      name: "Shop partner site",
      about:
        "Most outside links earn something: all of them are nofollow unless their author said otherwise, partners' links are sponsored without exception, and linked pictures count as advertisements.",
      rules: [
        ...paid,
        ...referrer,
        rule(
          "Linked pictures that lead outside are advertisements",
          { destination: "external", anchor: "image" },
          { sponsored: "on" },
          "fill",
        ),
        rule(
          "Outside links are nofollow, in a new tab",
          { destination: "external" },
          { nofollow: "on", target: "new" },
          "fill",
        ),
        inside,
      ],
    },
    {
      key: "community",
      name: "Community site",
      about:
        "Readers write here too: what they link to from their pages is marked ugc and nofollow and never sees who sent it, while editors' pages stay plain. Put your own paths into the first rule.",
      rules: [
        rule(
          "Readers' links",
          { destination: "external", pages: ["/letters/*", "/forum/*"] },
          { ugc: "on", nofollow: "on", noreferrer: "on", target: "new" },
          "overwrite",
          programs.length > 0 ? { programs } : undefined,
        ),
        ...paid,
        ...referrer,
        newTab,
        inside,
      ],
    },
  ];
}
