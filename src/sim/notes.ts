import { notesAnswerAt, notesAnswers } from "../../demo/saltmarsh/pages.ts";
import { createHash } from "node:crypto";
import type { OutsideHost } from "./page.ts";

const MOST_HOSTS = 20;
const made = new Map<string, ReturnType<typeof notesAnswers>>();

/** The system in which Saltmarsh Notes stand: pages with an ETag each, and what it leads on from. */
export const notes: OutsideHost = (url, request, response) => {
  // It takes itself to be where it was asked for, through whomever that was.
  const answers = made.get(url.host) ?? notesAnswers(request.socket.localPort ?? 80, url.host);
  if (made.size < MOST_HOSTS) made.set(url.host, answers);
  const answer = notesAnswerAt(answers, `${url.pathname}${url.search}`);
  if ("location" in answer)
    return void response.writeHead(answer.status, { Location: answer.location }).end();
  if (!("body" in answer))
    return void response
      .writeHead(answer.status, { "Content-Type": "text/html; charset=utf-8" })
      .end("<!doctype html><title>Not here</title><p>Nothing is kept here.</p>");
  const body = Buffer.from(answer.body, answer.encoding ?? "utf8");
  const tag = `"${createHash("sha1").update(body).digest("base64url").slice(0, 12)}"`;
  if (request.headers["if-none-match"] === tag) return void response.writeHead(304, { ETag: tag }).end();
  response.writeHead(200, { "Content-Type": answer.type, ETag: tag, "Content-Length": body.length });
  response.end(request.method === "HEAD" ? undefined : body);
};
