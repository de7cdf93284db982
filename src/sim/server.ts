import { createServer } from "node:http";
import { closed, listening } from "../incoming/listening.ts";
import { startMail } from "./mail.ts";
import { OUTSIDE } from "./hosts.ts";

/** The simulated outside world, listening on loopback. */
export interface Sim {
  stop(): Promise<void>;
}

/**
 * Starts the server that plays every outside host; browsers resolve their names under `.localhost` to it. With `mailPort`, a
 * mail server too, whose mail is shown on mail.localhost.
 */
export async function startSim(port: number, mailPort?: number): Promise<Sim> {
  const mail = mailPort === undefined ? undefined : await startMail(mailPort);
  const server = createServer((request, response) => {
    const header = request.headers.host ?? "";
    const host = header.replace(/:\d+$/, "");
    if (mail && host === "mail.localhost") return mail.show(request, response);
    const answer = OUTSIDE.get(host);
    if (!answer || !URL.canParse(request.url ?? "/", `http://${header}`)) {
      response.writeHead(404, { "Content-Type": "text/plain; charset=utf-8" }).end("Nobody lives here.\n");
      return;
    }
    void answer(new URL(request.url ?? "/", `http://${header}`), request, response);
  });
  await listening(server, "127.0.0.1", port, "MAPROPE_SIM_PORT");
  return {
    async stop() {
      await Promise.all([closed(server), mail?.stop()]);
    },
  };
}
