import { Random } from "../oracles/random.ts";

/** The hosts that random routes are made for. */
export const HOSTS = ["garden.example", "gdn.example"] as const;
const WORDS = [
  "New",
  "new",
  "blog",
  "Kilo",
  "q&a",
  "a&b=c",
  "café",
  "a b",
  "x.y",
  "star*",
  "(x)",
  "it's",
  "1",
  "12",
  "2019",
  "item-7",
  "a+b",
  "~me",
  "$1",
  "@home",
  "a;b",
  "a%26b",
  "index.html",
];
/** What may stand behind a path that is asked for. */
export const WAYS = ["", "", "", "/", "//", "/x", "/blog/New", "?a=1", "?a=1&b=%20", "?", "&x"];

/** A route as the API takes it. */
export interface RandomRoute {
  kind: string;
  match: string;
  address: string;
  host: string | null;
  [more: string]: unknown;
}

/** A route of any kind. */
export function randomRoute(random: Random): RandomRoute {
  const match = random.one([
    "exact",
    "exact",
    "exact",
    "exact",
    "exact",
    "exact",
    "prefix",
    "wildcard",
    "pattern",
  ]);
  const caseInsensitive = random.below(4) === 0;
  const base = randomPath(random);
  const address =
    match === "wildcard"
      ? base.replace(/\*/g, "") + random.one(["/*", "-*", "/*/end", "*.html"])
      : match === "pattern"
        ? base.replace(/[.*+?^${}()|[\]\\]/g, "\\$&") + random.one(["/(\\d+)", "/([^/]+)/x", "(?:/(.*))?"])
        : base;
  const gone = random.below(10) === 0;
  const to = random.one([
    "/moved",
    "https://shop.example/a",
    "https://shop.example/a?x=1",
    "/moved#part",
    "https://shop.example/a?x=1#part",
    "https://archive.example/é?q=$",
  ]);
  return {
    kind: gone ? "gone" : caseInsensitive ? "short" : "redirect",
    match,
    address,
    host: random.one([null, HOSTS[0], HOSTS[1]]),
    ...(gone
      ? {}
      : {
          destination:
            match === "exact"
              ? `${to}${to.includes("?") ? "" : `/${random.below(1000)}`}`
              : to.replace("$", "$1").replace(/\/a$/, "/$1"),
          query: random.one(["drop", "forward", "merge"]),
        }),
    ...(random.below(6) === 0 ? { robots: { noindex: true, nofollow: random.below(2) === 0 } } : {}),
  };
}

/** A path of words that often stand in random routes. */
export function randomPath(random: Random): string {
  const count = 1 + random.below(3);
  return `/${Array.from({ length: count }, () => encoded(random.one(WORDS))).join("/")}`;
}

function encoded(word: string): string {
  return word.includes("%") ? word : word.replace(/[é ]/g, encodeURIComponent);
}

/** A path that a route of this address answers. */
export function requestFor(random: Random, address: string, match: string): string {
  if (match === "wildcard") return address.replaceAll("*", random.one(["x", "a/b", "1"]));
  if (match !== "pattern") return address;
  const fill = random.one(["7", "42", "a"]);
  return address
    .replace("(\\d+)", fill)
    .replace("([^/]+)", fill)
    .replace("(?:/(.*))?", `/${fill}`)
    .replace(/\\(.)/g, "$1");
}

/** A path in the other letter case. */
export function swapCase(text: string): string {
  return text.replace(/%[0-9A-F]{2}|[a-z]/gi, (sign) =>
    sign.startsWith("%") ? sign : sign === sign.toLowerCase() ? sign.toUpperCase() : sign.toLowerCase(),
  );
}
