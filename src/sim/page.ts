import type { IncomingMessage, ServerResponse } from "node:http";

/** What one outside host answers. `url` is the request's, on that host. */
export type OutsideHost = (
  url: URL,
  request: IncomingMessage,
  response: ServerResponse,
) => void | Promise<void>;

/** Answers with a plain page. */
export function page(response: ServerResponse, status: number, title: string, body: string): void {
  response.writeHead(status, { "Content-Type": "text/html; charset=utf-8" });
  response.end(
    `<!doctype html><html lang="en"><title>${escape(title)}</title><body style="font:1.1rem/1.6 sans-serif;max-width:40rem;margin:3rem auto">${body}</body></html>`,
  );
}

export function escape(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
