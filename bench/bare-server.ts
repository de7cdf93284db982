// The yardstick: a bare node:http server that answers every request with one constant 302.
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";

const server = createServer((_request, response) => {
  response.writeHead(302, { Location: "https://shop.example/lamp" });
  response.end();
});
server.listen(0, "127.0.0.1", () => console.log(`ready on ${(server.address() as AddressInfo).port}`));
process.on("SIGTERM", () => process.exit(0));
