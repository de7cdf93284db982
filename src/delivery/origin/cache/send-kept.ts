import type { IncomingMessage, ServerResponse } from "node:http";
import { answerFields, fieldOf, without, type RawFields } from "../../../core/origin/front/fields.ts";
import type { FrontChanges } from "../../../core/origin/front/front-rewriter.ts";
import { rewritable, rewrittenFields, type Rewritable } from "../../../core/origin/front/rewritable.ts";
import { ChangedPage } from "../changing/changed-page.ts";
import { maybeCoded } from "../changing/coded.ts";
import { changing, changingCoded, type PassageEnd } from "../changing/rewriting.ts";
import type { KeptAnswer, MadeAnswer } from "./answer-cache.ts";

/** How a kept answer is read to change its links; undefined for one that goes on as it is. */
export function readable({ status, fields, body }: KeptAnswer): Rewritable | undefined {
  const how = rewritable("GET", status, fields);
  return how?.coding === undefined || maybeCoded(how.coding, body) ? how : undefined;
}

/** Changes the links of a kept answer. Rejects where it cannot be decoded. */
export function makeOf(
  { body }: KeptAnswer,
  how: Rewritable,
  changes: FrontChanges,
  stamp: string,
): Promise<MadeAnswer> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    const page = new ChangedPage(changes);
    const end: PassageEnd = {
      put: (bytes) => {
        chunks.push(bytes);
        return true;
      },
      ended: () => resolve({ stamp, body: Buffer.concat(chunks), links: page.links, changed: page.changed }),
      drained: () => undefined,
      failed: reject,
    };
    const passage = how.coding === undefined ? changing(page, end) : changingCoded(page, how.coding, end);
    passage.write(body);
    passage.end();
  });
}

const OF_BODY: ReadonlySet<string> = new Set([
  "content-length",
  "content-type",
  "content-encoding",
  "content-range",
]);
const TOLD_ANEW: ReadonlySet<string> = new Set(["age", "content-length"]);

/** Sends a kept answer, with its age (RFC 9111 section 5.1); to whoever holds it already, that it is the same. */
export function sendKept(
  { request, response }: { request: IncomingMessage; response: ServerResponse },
  kept: KeptAnswer,
  made: MadeAnswer | undefined,
  pseudonym: string,
): void {
  const { status, words, policy } = kept;
  const fields = made ? (made.fields ??= madeFields(kept, made, pseudonym)) : keptFields(kept, pseudonym);
  const body = made?.body ?? kept.body;
  const age = String(Math.max(0, Math.round(policy.age())));
  if (isHeld(request, fields)) {
    response.writeHead(304, [...without(fields, OF_BODY), "Age", age]);
    return void response.end();
  }
  const sent = [...fields, "Age", age, "Content-Length", String(body.length)];
  if (words === undefined) response.writeHead(status, sent);
  else response.writeHead(status, words, sent);
  if (request.method === "HEAD") response.end();
  else response.end(body);
}

function madeFields({ fields }: KeptAnswer, { stamp }: MadeAnswer, pseudonym: string): string[] {
  return without(rewrittenFields(fields, pseudonym, stamp), TOLD_ANEW);
}

function keptFields({ fields }: KeptAnswer, pseudonym: string): string[] {
  return without(answerFields(fields, pseudonym), TOLD_ANEW);
}

// RFC 9110 section 13.1.2, weakly compared; section 13.1.3 only where no tag was asked about.
function isHeld({ rawHeaders }: IncomingMessage, fields: RawFields): boolean {
  const tag = fieldOf(fields, "etag");
  const tags = fieldOf(rawHeaders, "if-none-match");
  if (tags !== undefined) {
    const bare = tag?.replace(/^W\//, "");
    return (
      tags.trim() === "*" ||
      (bare !== undefined && (tags.match(/"[^"]*"/g) ?? []).some((one) => one === bare))
    );
  }
  const since = Date.parse(fieldOf(rawHeaders, "if-modified-since") ?? "");
  const changed = Date.parse(fieldOf(fields, "last-modified") ?? "");
  return changed <= since;
}
