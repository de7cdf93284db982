import { request as httpRequest, type IncomingMessage } from "node:http";
import { request as httpsRequest } from "node:https";
import type { Duplex } from "node:stream";
import { pairsOf } from "../../core/origin/front/fields.ts";
import type { Judge } from "../../outgoing/judge.ts";

/**
 * Hands a connection over to the origin that wants to speak another protocol, by Node's own client: it keeps what was said,
 * and the connection with it.
 */
export async function handOver(of: {
  judge: Judge;
  address: URL;
  fields: string[];
  asked: { request: IncomingMessage; target: string };
  socket: Duplex;
  head: Buffer;
  /** Until the origin answers. */
  timeoutMs: number;
}): Promise<void> {
  const { judge, address, fields, asked, socket, head, timeoutMs } = of;
  const refuse = (): void =>
    void socket.end("HTTP/1.1 502 Bad Gateway\r\nContent-Length: 0\r\nConnection: close\r\n\r\n");
  try {
    const isSecure = address.protocol === "https:";
    const name = address.hostname.replace(/^\[|\]$/g, "");
    const port = Number(address.port || (isSecure ? 443 : 80));
    const host = await judge(name, port);
    const sent = (isSecure ? httpsRequest : httpRequest)({
      host,
      port,
      servername: name,
      path: asked.target,
      method: asked.request.method ?? "GET",
      headers: fields as never,
      setHost: false,
      agent: false,
      timeout: timeoutMs,
    });
    sent.on("upgrade", (answer, theirs, first) => {
      socket.write(headOf(answer));
      if (first.length > 0) socket.write(first);
      if (head.length > 0) theirs.write(head);
      theirs.pipe(socket).pipe(theirs);
      for (const [one, other] of [
        [socket, theirs],
        [theirs, socket],
      ] as const) {
        one.on("error", () => other.destroy());
        one.on("close", () => other.destroy());
      }
    });
    sent.on("response", (answer) => {
      socket.write(headOf(answer, "Connection: close\r\n"));
      answer.pipe(socket);
    });
    sent.on("error", refuse);
    socket.on("error", () => sent.destroy());
    sent.end();
  } catch {
    // Where the origin may not be asked, nothing is handed over.
    refuse();
  }
}

function headOf(answer: IncomingMessage, more = ""): string {
  const fields = pairsOf(answer.rawHeaders)
    .filter(([name]) => more === "" || !/^(?:connection|keep-alive|transfer-encoding)$/i.test(name))
    .map(([name, value]) => `${name}: ${value}\r\n`);
  return `HTTP/1.1 ${answer.statusCode} ${answer.statusMessage}\r\n${fields.join("")}${more}\r\n`;
}
