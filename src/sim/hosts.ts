import type { IncomingMessage, ServerResponse } from "node:http";

/** What one outside host answers. `url` is the request's, on that host. */
export type OutsideHost = (
  url: URL,
  request: IncomingMessage,
  response: ServerResponse,
) => void | Promise<void>;

interface Shop {
  name: string;
  products: Readonly<Record<string, string>>;
}

const SHOPS: Readonly<Record<string, Shop>> = {
  "harbour-optics.localhost": {
    name: "Harbour Optics",
    products: {
      "eight-inch-dobsonian": "Eight-inch Dobsonian",
      "ten-by-fifty-binoculars": "10×50 binoculars",
      "red-torch": "Red torch, two brightnesses",
      "travel-refractor": "Travel refractor, 66 mm",
    },
  },
  "quiet-mount.localhost": {
    name: "Quiet Mount Works",
    products: {
      "garden-pier": "Garden pier",
      "parallelogram-mount": "Parallelogram mount",
      "star-tracker": "Star tracker",
    },
  },
  "starling-eyepieces.localhost": {
    name: "Starling Eyepieces",
    products: {
      "thirteen-millimetre-wide": "13 mm wide-field eyepiece",
      "barlow-two": "Two-times Barlow",
      "zoom-eight-to-twenty-four": "Zoom, 8 to 24 mm",
    },
  },
};

function shop(host: string, { name, products }: Shop): OutsideHost {
  return (url, _request, response) => {
    const key = url.pathname.replace(/^\/(?:item\/)?|\/$/g, "");
    const product = products[key];
    if (key !== "" && !product)
      return page(response, 404, name, `<p>${name} has nothing under ${escape(url.pathname)}.</p>`);
    const arrived = ["partner", "sub"].map((parameter) => {
      const value = url.searchParams.get(parameter);
      return `<dt>${parameter}</dt><dd data-arrived="${parameter}">${value ? escape(value) : "did not arrive"}</dd>`;
    });
    const list = Object.entries(products).map(
      ([path, title]) => `<li><a href="/item/${path}">${title}</a></li>`,
    );
    page(
      response,
      200,
      product ?? name,
      `<h1>${product ?? name}</h1><dl>${arrived.join("")}</dl><ul>${list.join("")}</ul><p>A simulated shop on ${host}.</p>`,
    );
  };
}

// A tracking redirect: /c/ACCOUNT/SHOP?to=PATH&sub=LABEL leads to the shop with partner and sub in its query.
function network(parameter: string): OutsideHost {
  return (url, _request, response) => {
    const [, , account, key] = url.pathname.split("/");
    const host = Object.keys(SHOPS).find((name) => name.startsWith(`${key}.`));
    if (!account || !host)
      return page(response, 404, "Unknown program", "<p>This tracking link names no program.</p>");
    const port = url.port ? `:${url.port}` : "";
    const target = new URL(url.searchParams.get("to") ?? "/", `http://${host}${port}`);
    if (target.hostname !== host)
      return page(response, 400, "Not this shop", "<p>The destination is not the program's.</p>");
    target.searchParams.set("partner", account);
    const label = url.searchParams.get(parameter);
    if (label) target.searchParams.set("sub", label);
    response
      .writeHead(302, {
        Location: target.href,
        "Set-Cookie": `click=${encodeURIComponent(account)}; Max-Age=2592000`,
      })
      .end();
  };
}

const roundabout: OutsideHost = (url, _request, response) => {
  const next = url.pathname === "/east" ? "/west" : "/east";
  response.writeHead(302, { Location: next }).end();
};

// Five hops before it arrives, each with what it was given.
const longLane: OutsideHost = (url, _request, response) => {
  const gate = Number(/^\/gate\/(\d)$/.exec(url.pathname)?.[1] ?? 0);
  if (gate < 5) response.writeHead(301, { Location: `/gate/${gate + 1}${url.search}` }).end();
  else page(response, 200, "Long Lane", "<p>The end of the lane.</p>");
};

// A hop that drops what stands behind the question mark.
const leakyBucket: OutsideHost = (url, _request, response) => {
  const port = url.port ? `:${url.port}` : "";
  const item = url.searchParams.get("item") ?? "red-torch";
  response.writeHead(302, { Location: `http://harbour-optics.localhost${port}/item/${item}` }).end();
};

const politeNothing: OutsideHost = (_url, _request, response) =>
  page(response, 200, "Page not found", "<p>We are sorry, and say so with a smile and a 200.</p>");

const drowned: OutsideHost = (url, request, response) => {
  if (url.pathname === "/hang-up") return void request.socket.destroy();
  const status = url.pathname === "/gone" ? 410 : url.pathname === "/broken" ? 500 : 404;
  page(response, status, "Drowned Lens", "<p>Drowned Lens closed its shop.</p>");
};

const slow: OutsideHost = async (_url, _request, response) => {
  await new Promise((resolve) => setTimeout(resolve, 4_000));
  page(response, 200, "Slow Tide Almanacs", "<p>Here at last.</p>");
};

/** Every host of the simulated outside world, by name. */
export const OUTSIDE: ReadonlyMap<string, OutsideHost> = new Map<string, OutsideHost>([
  ...Object.entries(SHOPS).map(([host, one]): [string, OutsideHost] => [host, shop(host, one)]),
  ["go.saltmarsh-partners.localhost", network("sub")],
  ["hop.gannet-row.localhost", network("label")],
  ["roundabout.localhost", roundabout],
  ["long-lane.localhost", longLane],
  ["leaky-bucket.localhost", leakyBucket],
  ["polite-nothing.localhost", politeNothing],
  ["drowned-lens.localhost", drowned],
  ["slow-tide.localhost", slow],
]);

function page(response: ServerResponse, status: number, title: string, body: string): void {
  response.writeHead(status, { "Content-Type": "text/html; charset=utf-8" });
  response.end(
    `<!doctype html><html lang="en"><title>${escape(title)}</title><body style="font:1.1rem/1.6 sans-serif;max-width:40rem;margin:3rem auto">${body}</body></html>`,
  );
}

function escape(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
