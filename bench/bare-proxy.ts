// The yardstick: a bare Node proxy that only pipes, with connections that are kept.
import { Agent, createServer, request } from "node:http";
import type { AddressInfo } from "node:net";

const port = Number(process.argv[2]);
const agent = new Agent({ keepAlive: true, maxSockets: 256 });
const server = createServer((asked, answer) => {
  const sent = request(
    { host: "127.0.0.1", port, path: asked.url, method: asked.method, headers: asked.headers, agent },
    (theirs) => {
      answer.writeHead(theirs.statusCode!, theirs.headers);
      theirs.pipe(answer);
    },
  );
  sent.on("error", () => answer.destroy());
  asked.pipe(sent);
});
server.listen(0, "127.0.0.1", () => console.log(`ready on ${(server.address() as AddressInfo).port}`));
process.on("SIGTERM", () => process.exit(0));
