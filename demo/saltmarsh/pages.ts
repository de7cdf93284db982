import { seeded } from "../seeded.ts";
import { framed, type NotesPage } from "./frames.ts";
import { BIRDS, pick, sentences, THINGS, WALKS } from "./sentences.ts";

/** The host of the second site of the demo, which stands elsewhere. */
export const NOTES_HOST = "saltmarsh-notes.localhost";

/** What the system that it stands in answers for a path: a document, or where it leads on. */
export type NotesAnswer =
  | { status: 200; type: string; body: string; encoding?: "latin1"; robots?: string }
  | { status: 301 | 302; location: string }
  | { status: 404 | 410 | 500 };

const HTML = "text/html; charset=utf-8";
const MONTHS = 40;
const NOTES_A_MONTH = 4;

/**
 * Everything that the system answers in which Saltmarsh Notes stand, by path: some 300 pages in the looks of three systems, with
 * the usual faults: links that nobody marked, a network's raw addresses, pages that went, detours, whole addresses of its own (by `host`, the name that it is asked by).
 */
export function notesAnswers(simPort: number, host = `${NOTES_HOST}:${simPort}`): Map<string, NotesAnswer> {
  const next = seeded(1741);
  const home = `http://${host}`;
  const shop = (host: string, item: string): string => `http://${host}.localhost:${simPort}/item/${item}`;
  const tracked = (to: string): string =>
    `http://go.saltmarsh-partners.localhost:${simPort}/c/SN-0417/harbour-optics?to=${encodeURIComponent(to)}&sub=notes`;
  const partner = tracked(shop("harbour-optics", "ten-by-fifty-binoculars"));
  const pages = new Map<string, NotesPage>();

  const notes: [path: string, title: string][] = [];
  for (let month = 0; month < MONTHS; month += 1)
    for (let at = 0; at < NOTES_A_MONTH; at += 1) {
      const [year, of] = [2023 + Math.floor(month / 12), (month % 12) + 1];
      const bird = pick(BIRDS, next);
      const title = `${bird}, and ${pick(["fog", "mud", "salt", "wind", "an early tide", "a late ferry"], next)}`;
      notes.push([`/notes/${year}/${String(of).padStart(2, "0")}/${slug(title)}-${at + 1}`, title]);
    }
  const outside = [
    `<a href="${shop("harbour-optics", "red-torch")}" target="_blank">a red torch</a>`,
    `<a href="${shop("kettle-moor", "night-flask")}">the flask</a>`,
    `<a href="${tracked(shop("harbour-optics", "travel-refractor"))}" target="_blank">the small refractor</a>`,
    `<a href="${shop("dew-and-felt", "felt-gloves")}" rel="nofollow">felt gloves</a>`,
    `<a href="http://hedge-and-sky.example/marsh" target="_blank">a neighbour's page</a>`,
    `<a href="http://tides.example/table?place=marsh">the tables</a>`,
    `<a href="http://drowned-lens.localhost:${simPort}/gone">a shop that was</a>`,
  ];
  const inside = (): string => {
    const [path, title] = pick(notes, next);
    return pick(
      [
        `<a href="${path}">${title}</a>`,
        `<a href="${home}${path}">${title}</a>`,
        `<a href="/walks/${slug(pick(WALKS, next))}">a walk</a>`,
        `<a href="/birds/${slug(pick(BIRDS, next))}">the bird</a>`,
      ],
      next,
    );
  };
  const text = (more = ""): string =>
    [
      `<p>${sentences(next, 4)}</p>`,
      `<p>${sentences(next, 2)} We had ${pick(outside, next)} with us. ${sentences(next, 2)} See also ${inside()}.</p>`,
      ...(next() < 0.5 ? [`<p>${sentences(next, 3)} More in ${inside()}.</p>`] : []),
      more,
    ].join("\n");

  for (const [at, [path, title]] of notes.entries()) {
    const look = at < 48 ? "before" : "now";
    pages.set(path, {
      title,
      look,
      text: text(at % 29 === 0 ? `<p>As told in <a href="/notes/old/${at}">an older note</a>.</p>` : ""),
    });
  }
  for (const bird of BIRDS)
    pages.set(`/birds/${slug(bird)}`, {
      title: bird,
      text: text(`<p>Named on <a href="/lists/red.html">the list</a>.</p>`),
    });
  for (const walk of WALKS)
    pages.set(`/walks/${slug(walk)}`, {
      title: walk,
      text: text(`<p>The map stands <a href="/map">here</a>.</p>`),
    });
  for (const thing of THINGS)
    pages.set(`/things/${slug(thing)}`, {
      title: `Of ${thing}`,
      text: text(
        `<p>Bought at <a href="${pick([partner, shop("harbour-optics", "ten-by-fifty-binoculars"), shop("almanac-house", "garden-atlas")], next)}">the shop</a>; if you buy there, we earn a little.</p>`,
      ),
    });
  for (let at = 1; at <= 60; at += 1)
    pages.set(`/archive/nr${at}.html`, {
      title: `Nr. ${at} – früher notiert`,
      look: "first",
      text: `<p>${sentences(next, 3)}<p><a href="nr${at + 1}.html">weiter</a> <a href="${home}/archive/links${at % 3}.html">Links</a>`,
    });
  const lists: readonly (readonly [
    path: string,
    title: string,
    entries: readonly (readonly [string, string])[],
  ])[] = [
    ["/notes/", "Notes", notes],
    ["/birds/", "Birds", BIRDS.map((bird) => [`/birds/${slug(bird)}`, bird])],
    ["/walks/", "Walks", WALKS.map((walk) => [`/walks/${slug(walk)}`, walk])],
    ["/things/", "Things we use", THINGS.map((thing) => [`/things/${slug(thing)}`, `Of ${thing}`])],
    [
      "/archive/",
      "Archive",
      Array.from({ length: 60 }, (_, at) => [`/archive/nr${at + 1}.html`, `Nr. ${at + 1}`]),
    ],
  ];
  for (const [path, title, entries] of lists)
    pages.set(path, {
      title,
      text: `<ul>${entries.map(([to, words]) => `<li><a href="${to}">${words}</a></li>`).join("")}</ul>`,
    });
  pages.set("/", {
    title: "Saltmarsh Notes",
    text: `<p>${sentences(next, 2)}</p><p>New: ${inside()}. The <a href="/events/2026/12/">calendar</a>; the <a href="/shop?sort=name">shop</a>; <a href="/archive/">the archive</a>.</p>`,
  });
  pages.set("/about", {
    title: "About",
    text: `<p>Two people, one dog. ${sentences(next, 3)} Write to <a href="mailto:two@saltmarsh.example">us</a>.</p>`,
  });
  pages.set("/imprint", {
    title: "Imprint",
    text: "<p>Names and address.</p>",
    head: `<meta name="robots" content="noindex, nofollow">`,
  });
  const variant = notes.at(-1)!;
  pages.set(`${variant[0]}?print=1`, {
    title: variant[1],
    text: text(),
    head: `<link rel="canonical" href="${home}${variant[0]}">`,
  });

  const recent = notes
    .slice(-5)
    .map(([path, title]) => `<li><a href="${path}">${title}</a></li>`)
    .join("");
  const answers = new Map<string, NotesAnswer>();
  for (const [path, page] of pages)
    answers.set(path, {
      status: 200,
      type: page.look === "first" ? "text/html" : HTML,
      body: framed(path, page, recent, partner),
      ...(page.look === "first" && { encoding: "latin1" as const }),
    });
  answers.set("/map", {
    status: 200,
    type: HTML,
    body: `<!doctype html><html lang="en"><head><title>Map</title></head><body><div id="map"></div><script src="/map.js"></script></body></html>`,
  });
  for (const [from, to] of [
    ["/lists/red.html", "/birds/"],
    ["/walk.php?id=3", "/walks/the-sea-wall"],
    ["/guest.html", "/about"],
    ["/shop", "/things/"],
  ] as const)
    answers.set(from, { status: 301, location: to });
  answers.set("/archive/links0.html", { status: 410 });
  answers.set("/archive/links1.html", { status: 500 });
  answers.set("/look.css", { status: 200, type: "text/css", body: "body{font-family:serif}" });
  answers.set("/robots.txt", {
    status: 200,
    type: "text/plain",
    body: `User-agent: *\nDisallow: /drafts/\nSitemap: ${home}/sitemap_index.xml\n`,
  });
  answers.set("/feed.xml", {
    status: 200,
    type: "application/rss+xml",
    body: `<?xml version="1.0"?><rss version="2.0"><channel><title>Saltmarsh Notes</title><link>${home}/</link>${notes
      .slice(-10)
      .map(([path, title]) => `<item><title>${title}</title><link>${home}${path}</link></item>`)
      .join("")}</channel></rss>`,
  });
  const named = [...pages.keys()].filter((path) => !path.startsWith("/archive/") && !path.includes("?"));
  const urlset = (paths: readonly string[]): string =>
    `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${paths.map((path) => `<url><loc>${home}${path}</loc></url>`).join("")}</urlset>`;
  answers.set("/sitemap_index.xml", {
    status: 200,
    type: "application/xml",
    body: `<?xml version="1.0"?><sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${["notes", "rest"].map((name) => `<sitemap><loc>${home}/sitemap-${name}.xml</loc></sitemap>`).join("")}</sitemapindex>`,
  });
  answers.set("/sitemap-notes.xml", {
    status: 200,
    type: "application/xml",
    body: urlset(named.filter((path) => path.startsWith("/notes/"))),
  });
  answers.set("/sitemap-rest.xml", {
    status: 200,
    type: "application/xml",
    body: urlset(named.filter((path) => !path.startsWith("/notes/"))),
  });
  return answers;
}

/** What the system answers for a path: what it holds, endless months of its calendar, sorted shops, and else a 404. */
export function notesAnswerAt(answers: ReadonlyMap<string, NotesAnswer>, pathAndQuery: string): NotesAnswer {
  const there = answers.get(pathAndQuery);
  if (there) return there;
  const [, year, month] = /^\/events\/(\d{4})\/(\d{1,2})\/$/.exec(pathAndQuery) ?? [];
  if (year !== undefined && month !== undefined) {
    const at = Number(year) * 12 + Number(month) - 1;
    const link = (to: number, words: string): string =>
      `<a href="/events/${Math.floor(to / 12)}/${(to % 12) + 1}/">${words}</a>`;
    return {
      status: 200,
      type: HTML,
      body: `<!doctype html><html lang="en"><head><title>Events</title></head><body><p>No events. ${link(at - 1, "before")} ${link(at + 1, "after")}</p></body></html>`,
    };
  }
  const path = pathAndQuery.replace(/\?.*/, "");
  return path === pathAndQuery ? { status: 404 } : (answers.get(path) ?? { status: 404 });
}

function slug(words: string): string {
  return words
    .toLowerCase()
    .replace(/[^a-z\d]+/g, "-")
    .replace(/^-|-$/g, "");
}
