import type { Rule, RuleMatch } from "./rule.ts";
import { MANAGED_TOKENS } from "./choices.ts";
import { GROUPS } from "./resolve/facts.ts";

/** A rule as a sentence: "Links to shop.example: add sponsored and nofollow, open in a new tab, replacing what the author set." */
export function ruleSentence(rule: Rule): string {
  const subject = matchWords(rule.match);
  const exception = rule.except
    ? `, except ${matchWords(rule.except, " or ").replace(/^links /, "those ")}`
    : "";
  const acts = setWords(rule);
  const mode =
    rule.mode === "overwrite" ? ", replacing what the author set" : ", where the author set nothing";
  return `${capital(subject)}${exception}: ${acts.length > 0 ? list(acts) + mode : "change nothing"}.`;
}

function matchWords(match: RuleMatch, joint = " "): string {
  const words: string[] = [];
  if (match.destination === "external") words.push("to outside hosts");
  if (match.destination === "internal") words.push("inside the site");
  if (match.domains) words.push(`to ${list(match.domains)}`);
  for (const group of GROUPS) {
    const names = match[group.field];
    if (names) words.push(`${group.words} ${list(names)}`);
  }
  if (match.pages) words.push(`on ${list(match.pages)}`);
  const noun =
    match.anchor === "image" ? "links on pictures" : match.anchor === "text" ? "links on words" : "links";
  return words.length > 0 ? `${noun} ${words.join(joint)}` : match.anchor ? noun : "all links";
}

function setWords(rule: Rule): string[] {
  const adds = MANAGED_TOKENS.filter((token) => rule.set[token] === "on");
  const drops = MANAGED_TOKENS.filter((token) => rule.set[token] === "off");
  const acts: string[] = [];
  if (adds.length > 0) acts.push(`add ${list(adds)}`);
  if (drops.length > 0) acts.push(`remove ${list(drops)}`);
  if (rule.set.target) acts.push(rule.set.target === "new" ? "open in a new tab" : "open in the same tab");
  return acts;
}

function list(words: readonly string[]): string {
  if (words.length > 4) return `${words.slice(0, 3).join(", ")} and ${words.length - 3} more`;
  return words.length < 2 ? (words[0] ?? "") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
