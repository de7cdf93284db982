/** What was found at a destination, in words. */
export const HEALTH_WORDS: Readonly<Record<string, string>> = {
  bad: "answers badly",
  fine: "answers well",
  slow: "slow",
  chain: "through another route",
  loop: "goes in circles",
  dead: "dead",
  failing: "failing",
  unreachable: "unreachable",
  unknown: "not looked at yet",
};
