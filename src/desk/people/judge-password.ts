/** What guessing a password would take, and what to do about it. */
export interface PasswordJudged {
  /** From 0 (guessed at once) to 4 (out of reach). */
  score: number;
  /** Why it is refused and what would be better; null for one that may be taken. */
  advice: string | null;
}

const GOOD = 3;

/**
 * Judges a password by how many guesses it would take: known passwords, words, names, dates, keyboards and repetitions
 * are what is tried first, and `words` (the person's own name and address) before all. Fetches its dictionaries when it is first asked.
 */
export async function judgePassword(password: string, words: readonly string[]): Promise<PasswordJudged> {
  const judge = await (made ??= make());
  const { score, feedback } = judge.check(password, [...words, "maprope", "map rope"]);
  if (score >= GOOD) return { score, advice: null };
  const said = [feedback.warning, ...feedback.suggestions].filter(Boolean).join(" ");
  return {
    score,
    advice: `This is too easy to guess. ${said || "Several words that nobody would expect together are hard to guess."}`,
  };
}

let made: ReturnType<typeof make> | undefined;

async function make() {
  const [{ ZxcvbnFactory }, common, english] = await Promise.all([
    import("@zxcvbn-ts/core"),
    import("@zxcvbn-ts/language-common"),
    import("@zxcvbn-ts/language-en"),
  ]);
  return new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
  });
}
