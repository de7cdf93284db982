import assert from "node:assert/strict";
import { after, before, describe, test } from "node:test";
import { ask } from "../support/ask.ts";
import { testDelivery, type TestDelivery } from "../support/delivery.ts";
import { testDesk, type TestDesk } from "../support/desk.ts";
import { startApache, startNginx, type WebServer } from "../support/web-servers.ts";
import { HOSTS, randomPath, randomRoute, requestFor, swapCase, WAYS } from "../support/random-routes.ts";
import { asked, Random } from "../oracles/random.ts";

for (const seed of [1, 2, 3].slice(0, asked(1, 3)))
  describe(`random routes, exported, seed ${seed}`, () => {
    const random = new Random(seed);
    let garden: TestDesk;
    let delivery: TestDelivery;
    const servers: Record<string, WebServer> = {};
    let made = 0;
    const paths: string[] = [];

    before(async () => {
      garden = await testDesk();
      await garden.call("POST", "/sites/garden/pages", {
        path: "/blog/index.html",
        title: "Page",
        html: "<p>x</p>",
        publish: true,
      });
      for (let tries = 0; made < asked(80, 300) && tries < 900; tries += 1) {
        const route = randomRoute(random);
        const { status, body } = await garden.call("POST", "/sites/garden/routes", route);
        // The linter refuses circles, addresses that are taken, and what is no address.
        assert.ok(status === 201 || status === 422, JSON.stringify(body));
        if (status !== 201) continue;
        made += 1;
        paths.push(requestFor(random, route.address, route.match));
      }
      delivery = await testDelivery(garden.url);
      const conf = (format: "nginx" | "apache") => async (port: number) =>
        String(
          (await garden.call("GET", `/sites/garden/routes/export?format=${format}&listen=${port}`)).body,
        );
      [servers.nginx, servers.apache] = await Promise.all([
        startNginx(conf("nginx")),
        startApache(conf("apache")),
      ]);
    });
    after(async () => {
      await Promise.all(Object.values(servers).map((server) => server.stop()));
      await delivery.end();
      await garden.close();
    });

    for (const server of ["nginx", "apache"] as const)
      test(`${server} answers what Map Rope answers`, async () => {
        const leftOut = await namedAsLeftOut(garden, server);
        const different: string[] = [];
        let redirects = 0;
        for (let request = 0; request < asked(400, 2_000); request += 1) {
          const host = random.one(HOSTS);
          const base = random.below(4) === 0 ? randomPath(random) : random.one(paths);
          const path = (random.below(8) === 0 ? swapCase(base) : base) + random.one(WAYS);
          const [ours, theirs] = await Promise.all([
            answerOf(delivery.port, host, path),
            answerOf(servers[server]!.port, host, path),
          ]);
          if (ours.startsWith("30")) redirects += 1;
          if (ours === theirs || leftOut(path)) continue;
          // What no route answers is the site's own there: a page, a 404, or a refusal of what is no address.
          if (/^(?:404|200) /.test(ours) && /^(?:200|40\d) $/.test(theirs)) continue;
          // A path with lower-case escapes meets no pattern there, as the file says.
          if (/%[0-9A-F]?[a-f]/.test(path) && /^40\d /.test(theirs)) continue;
          different.push(`${host}${path}: ${ours}, ${server} ${theirs}`);
        }
        assert.deepEqual(different, []);
        assert.ok(redirects > asked(100, 500), `${redirects} redirects are enough to compare`);
        assert.ok(made >= asked(60, 250), `${made} routes were made`);
      });
  });

async function answerOf(port: number, host: string, path: string): Promise<string> {
  const { status, headers } = await ask(port, path, { host: `${host}:${port}` });
  // A server may write the host of a path of its own out in full.
  const location = headers.location ? new URL(headers.location, `http://${host}:${port}/`).href : "";
  return `${status} ${location.replace(`http://${host}:${port}/`, `http://${host}/`)}${headers["x-robots-tag"] ? ` ${String(headers["x-robots-tag"])}` : ""}`;
}

// What the file itself says that it leaves out: requests that such a route answers are not compared.
async function namedAsLeftOut(garden: TestDesk, format: string): Promise<(path: string) => boolean> {
  const text = String((await garden.call("GET", `/sites/garden/routes/export?format=${format}`)).body);
  const named = [...text.matchAll(/^# Left out: (\S+): /gm)].map(([, address]) => address!);
  const { body } = await garden.call("GET", "/sites/garden/routes?limit=500");
  const routes = (body.items as { match: string; address: string }[]).filter(({ address }) =>
    named.includes(address.replace(/[^\x20-\x7E]+/g, "?")),
  );
  const { draftTable } = await import("../../src/core/routes/match/draft-table.ts");
  const { caseFoldedKey, pathKey } = await import("../../src/core/address/path-key.ts");
  return (path) => {
    const key = pathKey(path);
    return routes.some(({ match, address }) =>
      match === "exact"
        ? caseFoldedKey(pathKey(address)) === caseFoldedKey(key)
        : draftTable([address], match as "prefix", true).find("", caseFoldedKey(key)).length > 0,
    );
  };
}
