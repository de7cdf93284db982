import type { Dispatcher } from "undici";
import type { FrontChanges } from "../../../core/origin/front/front-rewriter.ts";
import type { FrontTally } from "../counts.ts";
import type { FrontAsked, FrontEnd } from "../asked.ts";
import { AnswerCache, type CacheAsked, type KeptAnswer, type MadeAnswer } from "./answer-cache.ts";
import { rawFields } from "../raw-fields.ts";
import { makeOf, readable, sendKept } from "./send-kept.ts";

/** What is made of an answer on its way, and how its origin is asked. */
export interface FromOrigin {
  doing: "untouched" | "shadow" | "on";
  stamp: string;
  origin: string;
  target: string;
  /** Fields of the request as the origin gets them, without conditions. */
  fields(): string[];
  changes(): FrontChanges;
}

/** Answers readers from what is kept of origins' answers. */
export interface FromCache {
  /** What caching looks at of a request. */
  asked(asked: FrontAsked, target: string): CacheAsked;
  /** Answers from what is kept, where that may be; else false. */
  answer(asked: FrontAsked, cached: CacheAsked, from: FromOrigin, end: FrontEnd): boolean;
  /** The same where the origin cannot be had, or fails. */
  answerForError(asked: FrontAsked, cached: CacheAsked, from: FromOrigin, end: FrontEnd): boolean;
  keeping: AnswerCache["keeping"];
  /** Lets go of what is kept of an address that was asked to change. */
  forget(cached: CacheAsked): void;
}

/** Makes it; what is stale and may be used meanwhile (RFC 5861 section 3) is asked anew behind the reader's back, once at a time. */
export function createFromCache({
  dispatcher,
  tally,
  pseudonym,
  report,
}: {
  dispatcher: Dispatcher;
  tally: FrontTally;
  pseudonym: string;
  report(message: string, error: unknown): void;
}): FromCache {
  const cache = new AnswerCache();
  const refreshing = new Set<string>();

  function send(
    asked: FrontAsked,
    cached: CacheAsked,
    kept: KeptAnswer,
    from: FromOrigin,
    end: FrontEnd,
  ): void {
    const { id } = asked.site.site;
    const how = from.doing === "untouched" ? undefined : readable(kept);
    if (how) tally.add(id, { pages: 1 });
    if (!how) {
      sendKept(asked, kept, undefined, pseudonym);
      return end.answered();
    }
    if (kept.made?.stamp === from.stamp) return give(asked, kept, kept.made, from, end);
    void makeOf(kept, how, from.changes(), from.stamp)
      .then(
        (made) => {
          kept.made = made;
          cache.resized(cached.key);
          give(asked, kept, made, from, end);
        },
        // What cannot be decoded goes on as it came.
        () => {
          sendKept(asked, kept, undefined, pseudonym);
          end.answered();
        },
      )
      .catch((error: unknown) => {
        report("An answer that is kept could not be sent.", error);
        asked.response.destroy();
      });
  }

  function give(
    asked: FrontAsked,
    kept: KeptAnswer,
    made: MadeAnswer,
    from: FromOrigin,
    end: FrontEnd,
  ): void {
    tally.add(asked.site.site.id, {
      links: made.links,
      changedLinks: made.changed,
      changedPages: made.changed > 0 ? 1 : 0,
    });
    sendKept(asked, kept, from.doing === "on" ? made : undefined, pseudonym);
    end.answered();
  }

  async function refresh(cached: CacheAsked, kept: KeptAnswer, from: FromOrigin): Promise<void> {
    if (refreshing.has(cached.key)) return;
    refreshing.add(cached.key);
    try {
      const confirming = Object.entries(cache.confirmingFields(cached, kept)).flat();
      const { statusCode, headers, body } = await dispatcher.request({
        origin: from.origin,
        path: from.target,
        method: "GET",
        headers: [...from.fields(), ...confirming],
        responseHeaders: "raw",
      });
      const raw = rawFields(headers);
      if (statusCode === 304) {
        await body.dump();
        return cache.confirm(cached, kept, raw);
      }
      const keeping = cache.keeping(cached, { status: statusCode, words: undefined, fields: raw });
      // One that fails leaves what is kept to its time.
      if (!keeping) {
        await body.dump();
        if (statusCode < 500) cache.forget(cached.key);
        return;
      }
      for await (const chunk of body) keeping.add(chunk as Buffer);
      keeping.end();
    } catch (error) {
      report(`What is kept of ${from.origin} could not be asked anew.`, error);
    } finally {
      refreshing.delete(cached.key);
    }
  }

  return {
    asked: ({ request, site, host }, target) => ({
      // What is known of the site's pages, elsewhere too, is another by then: nothing of before is found again.
      key: `${site.site.id} ${site.pagesChanged} ${host} ${target}`,
      method: request.method ?? "GET",
      fields: request.rawHeaders,
    }),
    answer(asked, cached, from, end) {
      const found = cache.find(cached);
      if (!found) return false;
      tally.add(asked.site.site.id, { passed: 1 });
      send(asked, cached, found.kept, from, end);
      if (found.isStale) void refresh(cached, found.kept, from);
      return true;
    },
    answerForError(asked, cached, from, end) {
      const kept = cache.findForError(cached);
      if (kept) send(asked, cached, kept, from, end);
      return kept !== undefined;
    },
    keeping: (cached, answer) => cache.keeping(cached, answer),
    forget: ({ key }) => cache.forget(key),
  };
}
