// An origin of 10,000 pages with a menu, a foot, a side box, and some links of their own.
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";

const PAGES = Number(process.argv[2] ?? 10_000);
const PARTS = ["notes", "walks", "birds", "things"];
const MENU = `<header><nav><ul>${PARTS.map((part) => `<li><a href="/${part}/">${part}</a></li>`).join("")}</ul></nav></header>`;
const FOOT = `<aside><p><a href="https://shop.example/">A shop</a></p></aside><footer><p><a href="/imprint">Imprint</a></p></footer>`;

function page(number: number): string {
  const texts = Array.from(
    { length: 12 },
    (_, at) =>
      `<p>Page ${number} says ${at} of the marsh, and of <a href="https://host${(number * 7 + at) % 200}.example/${number}/${at}">what is elsewhere</a>.</p>`,
  );
  const inside = [1, 2, 3].map(
    (step) => `<a href="${pathOf((number + step * 37) % PAGES)}">page ${number + step}</a>`,
  );
  return `<!doctype html><html lang="en"><head><title>Page ${number}</title></head><body>${MENU}<main><h1>Page ${number}</h1>${texts.join("\n")}<p>${inside.join(" ")}</p></main>${FOOT}</body></html>`;
}

function pathOf(number: number): string {
  return `/${PARTS[number % PARTS.length]!}/page-${number}`;
}

const server = createServer((request, response) => {
  const path = request.url ?? "/";
  const home = `http://${request.headers.host ?? ""}`;
  if (path === "/robots.txt")
    return void response
      .writeHead(200, { "Content-Type": "text/plain" })
      .end(`Sitemap: ${home}/sitemap.xml\n`);
  if (path === "/sitemap.xml") {
    const urls = Array.from(
      { length: PAGES },
      (_, number) => `<url><loc>${home}${pathOf(number)}</loc></url>`,
    );
    return void response
      .writeHead(200, { "Content-Type": "application/xml" })
      .end(`<urlset>${urls.join("")}</urlset>`);
  }
  const number = /page-(\d+)$/.exec(path)?.[1];
  if (number === undefined && path !== "/") return void response.writeHead(404).end();
  response.writeHead(200, { "Content-Type": "text/html; charset=utf-8" }).end(page(Number(number ?? 0)));
});
server.listen(0, "127.0.0.1", () => console.log(`ready on ${(server.address() as AddressInfo).port}`));
process.on("SIGTERM", () => process.exit(0));
