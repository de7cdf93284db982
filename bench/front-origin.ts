// An origin: pages of 50 kB with 45 links each, and one of a hundred megabytes.
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";

const WORDS = "The heron stood on the sea wall while the water turned and nobody minded the fog. ";

function page(number: number): Buffer {
  const links = Array.from({ length: 45 }, (_, at) => {
    const to = at % 3 === 0 ? `/p/${at}` : `https://shop${at % 20}.example/item/${number}-${at}`;
    return `<p>${WORDS.repeat(13)}<a href="${to}"${at % 5 === 0 ? ' target="_blank"' : ""}>link ${at}</a></p>`;
  });
  return Buffer.from(
    `<!doctype html><html lang="en"><head><title>Page ${number}</title></head><body>${links.join("\n")}</body></html>`,
  );
}
const pages = Array.from({ length: 20 }, (_, at) => page(at));
const piece = Buffer.from(`<p>${WORDS.repeat(100)}<a href="https://shop1.example/">a shop</a></p>\n`);
const PIECES = Math.ceil(100_000_000 / piece.length);

let asked = 0;
const server = createServer((request, response) => {
  if (request.url === "/large") {
    response.writeHead(200, { "Content-Type": "text/html; charset=utf-8" });
    let left = PIECES;
    const go = (): void => {
      while (left > 0) {
        left -= 1;
        if (!response.write(piece)) return void response.once("drain", go);
      }
      response.end();
    };
    return go();
  }
  const same = pages[Number(/\d+/.exec(request.url ?? "")?.[0] ?? 0) % pages.length]!;
  // No page of these comes twice as it came.
  const body = request.url!.startsWith("/new/")
    ? Buffer.concat([Buffer.from(`<!-- ${(asked += 1)} -->`), same])
    : same;
  const keeps = request.url!.startsWith("/kept/") ? { "Cache-Control": "public, max-age=3600" } : {};
  response.writeHead(200, {
    "Content-Type": "text/html; charset=utf-8",
    "Content-Length": body.length,
    ...keeps,
  });
  response.end(body);
});
server.listen(0, "127.0.0.1", () => console.log(`ready on ${(server.address() as AddressInfo).port}`));
process.on("SIGTERM", () => process.exit(0));
