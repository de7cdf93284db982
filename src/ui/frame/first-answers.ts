import { dehydrate, type Query } from "@tanstack/react-query";
import { createElement, type ComponentType } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { serverFrame } from "./frame.ts";

/** What one answer waits for, such as the site's name for its rules, is asked for in the next round. */
const ROUNDS = 2;
/** What takes longer is left to the browser. */
const AT_MOST_MS = 1_500;
/** A larger answer is quicker asked for beside the screen than read out of it. */
const MAX_CHARACTERS = 250_000;

/**
 * Asks for what a screen asks for when it is first drawn, so that its first rows are in the first answer: it is drawn
 * once without them, which tells what it wants, and last with all, which tells what is written. Answers the screen's properties.
 */
export async function withFirstAnswers<P extends object>(Screen: ComponentType<P>, props: P): Promise<P> {
  const { queries } = serverFrame()!;
  const end = AbortSignal.timeout(AT_MOST_MS);
  for (let round = 0; round <= ROUNDS; round += 1) {
    renderToStaticMarkup(createElement(Screen, props));
    if (round === ROUNDS) break;
    const wanted = queries.getQueryCache().getAll().filter(isWanted);
    if (wanted.length === 0) break;
    const asked = Promise.allSettled(wanted.map((query) => query.fetch()));
    await Promise.race([asked, over(end)]);
  }
  const cache = queries.getQueryCache();
  for (const query of cache.getAll()) if (isLarge(query.state.data)) cache.remove(query);
  return props;
}

function isLarge(answer: unknown): boolean {
  return answer !== undefined && JSON.stringify(answer).length > MAX_CHARACTERS;
}

// What is only looked at; what cannot be had is asked for again by the browser, which says why.
function isWanted({ queryKey, state, options }: Query): boolean {
  const { enabled } = options as { enabled?: unknown };
  return (
    String(queryKey[0]).startsWith("GET ") &&
    enabled !== false &&
    state.status === "pending" &&
    state.fetchStatus === "idle"
  );
}

function over(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) resolve();
    signal.addEventListener("abort", () => resolve(), { once: true });
  });
}

/** The answers that the server has, as the text of a script that is only read; a tag within ends nothing. */
export function writtenAnswers(): string {
  const frame = serverFrame();
  return frame
    ? JSON.stringify({ ...dehydrate(frame.queries), written: frame.written }).replaceAll("<", "\\u003c")
    : "{}";
}
