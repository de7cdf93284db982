import { network, shop } from "./networks.ts";
import { notes } from "./notes.ts";
import { page, type OutsideHost } from "./page.ts";
import { NOTES_HOST } from "../../demo/saltmarsh/pages.ts";
import { NETWORKS, SHOPS, type NetworkHost } from "../../demo/outside-world.ts";

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

const letters: OutsideHost = (_url, _request, response) =>
  page(response, 200, "Torch Letters", "<p>Readers write about what they made themselves.</p>");

const slow: OutsideHost = async (_url, _request, response) => {
  await new Promise((resolve) => setTimeout(resolve, 4_000));
  page(response, 200, "Slow Tide Almanacs", "<p>Here at last.</p>");
};

/** Every host of the simulated outside world, by name. */
export const OUTSIDE: ReadonlyMap<string, OutsideHost> = new Map<string, OutsideHost>([
  ...Object.entries(SHOPS).map(([host, one]): [string, OutsideHost] => [host, shop(host, one)]),
  ...(Object.keys(NETWORKS) as NetworkHost[]).map((host): [string, OutsideHost] => [host, network(host)]),
  ["roundabout.localhost", roundabout],
  ["long-lane.localhost", longLane],
  ["leaky-bucket.localhost", leakyBucket],
  ["polite-nothing.localhost", politeNothing],
  ["drowned-lens.localhost", drowned],
  ["slow-tide.localhost", slow],
  ["torch-letters.localhost", letters],
  [NOTES_HOST, notes],
]);
