import assert from "node:assert/strict";
import { describe, test } from "node:test";
import { addressOf, methodOf } from "./address.ts";

describe("the address of a call", () => {
  test("has its parameters filled in, and nothing of them can lead elsewhere", () => {
    assert.equal(addressOf("GET /tokens", undefined), "/api/v1/tokens");
    assert.equal(
      addressOf("GET /sites/:site/pages/:id/revisions/:revision", { site: "a/b?c", id: 7, revision: "8#" }),
      "/api/v1/sites/a%2Fb%3Fc/pages/7/revisions/8%23",
    );
  });

  test("carries what is asked, without what is not", () => {
    assert.equal(
      addressOf("GET /sites/:site/pages", {
        site: "low-lantern",
        query: { q: "a & b=ü", limit: 500, cursor: "", sort: undefined },
        body: { never: "sent here" },
      }),
      "/api/v1/sites/low-lantern/pages?q=a+%26+b%3D%C3%BC&limit=500&cursor=",
    );
  });

  test("goes with its method", () => assert.equal(methodOf("DELETE /tokens/:id"), "DELETE"));
});
