import type { IncomingMessage, ServerResponse } from "node:http";
import { SMTPServer } from "smtp-server";
import { escape, page } from "./page.ts";

/** The mail server of the simulated world: it takes whatever it is given and delivers nothing; what came can be looked at. */
export interface MailServer {
  /** Answers the page that shows what came, the latest first. */
  show(request: IncomingMessage, response: ServerResponse): void;
  stop(): Promise<void>;
}

const MAX_KEPT = 50;

/** Starts it on loopback. */
export async function startMail(port: number): Promise<MailServer> {
  const taken: { to: string; text: string }[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["STARTTLS"],
    logger: false,
    onData(stream, session, done) {
      let text = "";
      stream.on("data", (part) => (text += String(part)));
      stream.on("end", () => {
        const to = session.envelope.rcptTo.map(({ address }) => address).join(", ");
        taken.unshift({ to, text });
        taken.length = Math.min(taken.length, MAX_KEPT);
        done();
      });
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  return {
    show(_request, response) {
      const all = taken.map(
        ({ to, text }) => `<article><h2>${escape(to)}</h2><pre>${escape(text)}</pre></article>`,
      );
      page(response, 200, "Mail that was sent", all.join("") || "<p>None was sent yet.</p>");
    },
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
