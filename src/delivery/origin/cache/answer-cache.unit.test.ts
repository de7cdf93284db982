import assert from "node:assert/strict";
import { describe, mock, test } from "node:test";
import { AnswerCache, type CacheAsked } from "./answer-cache.ts";

function asked(...fields: string[]): CacheAsked {
  return { key: "site /p", method: "GET", fields };
}

function kept(cache: AnswerCache, request: CacheAsked, ...fields: string[]): void {
  const keeping = cache.keeping(request, { status: 200, words: undefined, fields });
  assert.ok(keeping);
  keeping.add(Buffer.from(fields.join()));
  keeping.end();
}

const bodyOf = (cache: AnswerCache, request: CacheAsked): string | undefined =>
  cache.find(request)?.kept.body.toString();

describe("what was found fresh is found again", () => {
  test("until it is stale, and not a moment longer", () => {
    mock.timers.enable({ apis: ["Date"], now: 1_000_000 });
    try {
      const cache = new AnswerCache();
      kept(cache, asked(), "Cache-Control", "max-age=10");
      for (const ms of [0, 5_000, 4_900]) {
        mock.timers.tick(ms);
        assert.ok(bodyOf(cache, asked()), `after ${ms} more`);
      }
      mock.timers.tick(101);
      assert.equal(cache.find(asked()), undefined);
    } finally {
      mock.timers.reset();
    }
  });

  test("by none who wants another: by language, by method, or anew", () => {
    const cache = new AnswerCache();
    const answer = ["Cache-Control", "max-age=60", "Vary", "Accept-Language, X-Edition"];
    kept(cache, asked("Accept-Language", "de"), ...answer, "Content-Language", "de");
    kept(cache, asked("Accept-Language", "en", "X-Edition", "2"), ...answer, "Content-Language", "en");
    for (const _ of ["first", "again"]) {
      assert.match(bodyOf(cache, asked("Accept-Language", "de"))!, /de$/);
      assert.match(bodyOf(cache, asked("X-Edition", "2", "accept-language", "en"))!, /en$/);
      for (const other of [
        asked("Accept-Language", "en"),
        asked("Accept-Language", "de", "X-Edition", "2"),
        asked("Accept-Language", "de", "Cache-Control", "no-cache"),
        asked("Accept-Language", "de", "Pragma", "no-cache"),
        asked("Accept-Language", "de", "Authorization", "Basic eDp5"),
        asked("Accept-Language", "de", "Cookie", "a=b"),
        { ...asked("Accept-Language", "de"), method: "POST" },
      ])
        assert.equal(cache.find(other), undefined, other.fields.join());
    }
  });

  test("by none once the origin has said that it is another", () => {
    const cache = new AnswerCache();
    kept(cache, asked(), "Cache-Control", "max-age=60", "ETag", '"1"');
    const found = cache.find(asked())!;
    cache.confirm(asked(), found.kept, ["Cache-Control", "max-age=0", "ETag", '"1"']);
    assert.equal(cache.find(asked()), undefined);
  });
});
