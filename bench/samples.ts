import { ruleSchema, type Rule } from "../src/core/rules/rule.ts";
import type { LinkResolver } from "../src/core/rules/resolve/link-facts.ts";

export const PAGES = 10_000;
export const LINKS_A_PAGE = 20;
export const HOSTS = 400;

/** A set as a large site may have it: of a hundred rules ten are for sections, ten for categories, ten for single pages, one for all outside links, the others for domains. */
export function someRules(count: number): Rule[] {
  return Array.from({ length: count }, (_, index) => {
    const set = [{ sponsored: "on", nofollow: "on" }, { target: "new" }, { external: "on" }, { ugc: "on" }][
      index % 4
    ];
    return ruleSchema.parse({
      name: `Rule ${index}`,
      match: matchOf(index),
      set,
      mode: index % 3 ? "fill" : "overwrite",
    });
  });
}

function matchOf(index: number): object {
  const kind = index % 10;
  if (index % 100 === 1) return { destination: "external" };
  if (kind === 2) return { pages: [`/section-${index % 50}/*`] };
  if (kind === 3) return { categories: [`section ${index % 50}`], destination: "external" };
  if (kind === 4) return { pages: [`/section-${index % 50}/page-${(index * 13) % PAGES}`], anchor: "text" };
  return { domains: [`shop-${index % HOSTS}.example`, `*.shop-${(index * 7) % HOSTS}.example`] };
}

export function pageHtml(page: number, links: number): string {
  const words = "Over the lawn the lamp is turned low, and what was grey has colour again. ".repeat(2);
  return Array.from({ length: links }, (_, at) => {
    const number = page * links + at;
    const href =
      number % 5 === 4
        ? `/section-${number % 50}/page-${(number * 31) % PAGES}`
        : `https://${number % 3 ? "" : "www."}shop-${(number * 17) % HOSTS}.example/item/${number}?tag=7`;
    const inner =
      number % 9 === 0 ? `<img src="/files/lamp.svg" alt="lamp ${number}">` : `lamp number ${number}`;
    return `<p>${words}<a href="${href}"${number % 11 === 0 ? ' rel="nofollow"' : ""}>${inner}</a>. ${words}</p>`;
  }).join("\n");
}

export const FOREIGN: LinkResolver = {
  hosts: ["bench.example"],
  answers: () => "page",
  routeDestination: () => undefined,
};

/** Documents as sites elsewhere have them: head, menus, text, list of further reading and footer around the links. */
export function wholeDocument(page: number): string {
  const menu = Array.from(
    { length: 25 },
    (_, at) =>
      `<li id="menu-item-${at}" class="menu-item menu-item-type-page menu-item-${at}"><a class="menu-link level-1" href="/section-${at}/"><span class="menu-text">Section ${at}</span></a></li>`,
  ).join("\n");
  const meta = Array.from(
    { length: 20 },
    (_, at) => `<meta property="thing:${at}" content="value number ${at} of the page">`,
  ).join("\n");
  const figures = Array.from(
    { length: 12 },
    (_, at) =>
      `<figure class="wide" id="figure-${at}"><img loading="lazy" decoding="async" width="1200" height="800" src="/files/picture-${at}-1200.webp" srcset="/files/picture-${at}-600.webp 600w, /files/picture-${at}-1200.webp 1200w" sizes="(max-width: 800px) 100vw, 800px" alt="The lamp seen from place ${at}"><figcaption><em>Picture ${at}.</em> The lamp seen from place ${at}, an hour after the sun has gone.</figcaption></figure>`,
  ).join("\n");
  const style = ".menu-item { margin: 0; padding: 0.2rem 0.6rem; } .wide { width: 100%; }\n".repeat(60);
  const script = `window.settings = { page: ${page}, lamps: [${Array.from({ length: 120 }, (_, at) => `"lamp-${at}"`).join(", ")}] };`;
  return `<!doctype html><html lang="en"><head><title>Page ${page}</title>${meta}<style>${style}</style><script>${script}</script></head><body class="page page-${page}"><nav><ul>${menu}</ul></nav><main><article class="text" id="text-${page}">${pageHtml(page, LINKS_A_PAGE)}${figures}</article></main><footer><p>&copy; all of us</p></footer></body></html>`;
}
