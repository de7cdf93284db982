import { createServer } from "node:http";
import { closed, listening } from "../incoming/listening.ts";
import { OUTSIDE } from "./hosts.ts";

/** The simulated outside world, listening on loopback. */
export interface Sim {
  stop(): Promise<void>;
}

/** Starts the server that plays every outside host; browsers resolve their names under `.localhost` to it. */
export async function startSim(port: number): Promise<Sim> {
  const server = createServer((request, response) => {
    const header = request.headers.host ?? "";
    const host = header.replace(/:\d+$/, "");
    const answer = OUTSIDE.get(host);
    if (!answer || !URL.canParse(request.url ?? "/", `http://${header}`)) {
      response.writeHead(404, { "Content-Type": "text/plain; charset=utf-8" }).end("Nobody lives here.\n");
      return;
    }
    void answer(new URL(request.url ?? "/", `http://${header}`), request, response);
  });
  await listening(server, "127.0.0.1", port, "MAPROPE_SIM_PORT");
  return { stop: () => closed(server) };
}
