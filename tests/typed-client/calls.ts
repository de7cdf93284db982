import type { Client } from "openapi-fetch";
import type { components, paths } from "../../.cache/typed-client/api.d.ts";

type Route = components["schemas"]["Route"];

/** What a call came to: its data, typed by the document, or what was wrong with it. */
interface Called<T> {
  data?: T | undefined;
  error?: unknown;
  response: Response;
}

/** Makes fifty calls as a script of somebody else would, with types that were made from the document; answers how many. */
export async function makeCalls(api: Client<paths>): Promise<number> {
  let calls = 0;
  const well = async <T>(call: Promise<Called<T>>): Promise<T> => {
    const { data, error, response } = await call;
    calls += 1;
    if (!response.ok) throw new Error(`call ${calls}, ${response.url}: ${JSON.stringify(error)}`);
    return data as T;
  };
  const site = "garden";
  const path = { site };
  const of = (id: string) => ({ params: { path: { site, id } } });
  const here = { params: { path } };

  await well(api.GET("/sites"));
  const garden = await well(api.GET("/sites/{site}", here));
  await well(
    api.PATCH("/sites/{site}", { ...here, body: { version: garden.version, tagline: "Everything grows" } }),
  );
  await well(api.GET("/sites/{site}/hosts", here));
  await well(api.POST("/sites/{site}/hosts", { ...here, body: { name: "typed.example", role: "other" } }));

  const route: Route = await well(
    api.POST("/sites/{site}/routes", {
      ...here,
      body: {
        kind: "short",
        address: "/typed",
        destination: "https://harbour-optics.example/",
        tags: ["autumn"],
      },
    }),
  );
  await well(api.GET("/sites/{site}/routes", { params: { path, query: { kind: "short", limit: 5 } } }));
  const again = await well(api.GET("/sites/{site}/routes/{id}", of(route.id)));
  await well(
    api.PATCH("/sites/{site}/routes/{id}", {
      ...of(route.id),
      body: { version: again.version, title: "Typed" },
    }),
  );
  await well(api.GET("/sites/{site}/routes/{id}/history", of(route.id)));
  await well(
    api.POST("/sites/{site}/routes/bulk", {
      ...here,
      body: { ids: [route.id], action: { do: "tag", tag: "winter" }, dryRun: false },
    }),
  );
  await well(api.GET("/sites/{site}/routes/facets", here));
  await well(api.GET("/sites/{site}/routes/lint", here));
  await well(
    api.POST("/sites/{site}/routes/check", {
      ...here,
      body: { kind: "short", address: "/typed-two", destination: "https://a.example/" },
    }),
  );
  await well(
    api.POST("/sites/{site}/routes/try", {
      ...here,
      body: {
        kind: "short",
        address: "/typed-three",
        destination: "https://a.example/",
        tries: ["/typed-three"],
      },
    }),
  );
  await well(
    api.POST("/sites/{site}/routes/trace", { ...here, body: { addresses: ["/typed"], outside: false } }),
  );

  const page = await well(
    api.POST("/sites/{site}/pages", {
      ...here,
      body: {
        path: "/typed-page",
        title: "Typed",
        html: '<p><a href="https://harbour-optics.example/frames">the frames</a></p>',
      },
    }),
  );
  await well(api.GET("/sites/{site}/pages", { params: { path, query: { q: "typed" } } }));
  const read = await well(api.GET("/sites/{site}/pages/{id}", of(page.id)));
  const saved = await well(
    api.PUT("/sites/{site}/pages/{id}", {
      ...of(page.id),
      body: { version: read.version, title: "Typed well" },
    }),
  );
  await well(
    api.POST("/sites/{site}/pages/{id}/publish", { ...of(page.id), body: { version: saved.version } }),
  );
  await well(
    api.GET("/sites/{site}/pages/{id}/delivered", {
      params: { path: { site, id: page.id } },
      parseAs: "text",
    }),
  );
  await well(api.GET("/sites/{site}/pages/{id}/revisions", of(page.id)));
  await well(api.GET("/sites/{site}/categories", here));
  await well(api.GET("/sites/{site}/blocks", here));
  const navigation = await well(api.GET("/sites/{site}/navigation", here));
  await well(
    api.PUT("/sites/{site}/navigation", {
      ...here,
      body: {
        version: navigation.version,
        items: [{ id: "a", label: "Typed", kind: "page", page: page.id, children: [] }],
      },
    }),
  );
  await well(api.GET("/sites/{site}/files", here));

  const rules = await well(api.GET("/sites/{site}/rules", here));
  const replaced = await well(
    api.PUT("/sites/{site}/rules", {
      ...here,
      body: {
        version: rules.version,
        rules: [{ name: "Outside", match: { destination: "external" }, set: { nofollow: "on" } }],
      },
    }),
  );
  await well(api.POST("/sites/{site}/rules/try", { ...here, body: { rules: replaced.rules } }));
  await well(
    api.POST("/sites/{site}/attributes", {
      ...here,
      body: { href: "https://harbour-optics.example/frames" },
    }),
  );
  await well(api.GET("/sites/{site}/rules/bundle", here));
  await well(api.GET("/sites/{site}/rules/versions", here));
  await well(api.POST("/sites/{site}/rewrite/report", { ...here, body: { html: "<p>nothing</p>" } }));

  await well(api.GET("/sites/{site}/links", { params: { path, query: { host: "harbour-optics.example" } } }));
  await well(api.GET("/sites/{site}/links/facets", here));
  await well(api.GET("/sites/{site}/links/report", here));
  await well(
    api.POST("/sites/{site}/paste", {
      ...here,
      body: { text: "https://harbour-optics.example/?utm_source=x" },
    }),
  );
  await well(api.GET("/sites/{site}/misses", here));
  await well(
    api.GET("/sites/{site}/clicks", {
      params: { path, query: { by: "day", from: "2026-11-01", to: "2026-11-30" } },
    }),
  );
  const program = await well(
    api.POST("/sites/{site}/programs", {
      ...here,
      body: { name: "Harbour Optics", state: "approved", domains: ["harbour-optics.example"] },
    }),
  );
  await well(api.GET("/sites/{site}/programs", here));
  await well(
    api.PATCH("/sites/{site}/programs/{id}", {
      ...of(program.id),
      body: { version: program.version, notes: "typed" },
    }),
  );
  await well(api.GET("/sites/{site}/networks", here));
  await well(api.GET("/sites/{site}/earnings", here));
  await well(api.GET("/sites/{site}/history", { params: { path, query: { limit: 3 } } }));
  await well(api.DELETE("/sites/{site}/routes/{id}", of(route.id)));
  await well(api.GET("/sites/{site}/bin", here));
  await well(api.GET("/tokens"));
  return calls;
}
