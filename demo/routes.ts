import type { WrittenRoute } from "../src/core/routes/route.ts";
import { moreRedirects, moreShortLinks } from "./more-routes.ts";
import type { Outside } from "./page.ts";

const SHORT = "lntn.localhost";

/** A route of the demo, and how many clicks a day it gets on an ordinary weekday. */
export type DemoRoute = Partial<WrittenRoute> & {
  kind: WrittenRoute["kind"];
  address: string;
  popularity: number;
};

/** The magazine's short links: made to be said aloud and printed in the quarterly booklet. */
export function demoShortLinks(out: Outside, now: number): DemoRoute[] {
  const short = (
    address: string,
    destination: string,
    title: string,
    popularity: number,
    more: Partial<WrittenRoute> = {},
  ): DemoRoute => ({
    kind: "short",
    host: SHORT,
    address,
    destination,
    title,
    popularity,
    ...more,
  });
  return [
    short(
      "/thirteen",
      out.saltmarsh("starling-eyepieces", "thirteen-millimetre-wide", "short-thirteen"),
      "Starling 13 mm eyepiece",
      21,
      { tags: ["starling"], aliases: ["/13", "/13mm"] },
    ),
    short(
      "/dob",
      out.saltmarsh("harbour-optics", "eight-inch-dobsonian", "short-dob"),
      "Harbour eight-inch Dobsonian",
      17,
      { tags: ["harbour"], aliases: ["/dobsonian"] },
    ),
    short(
      "/glass",
      out.saltmarsh("harbour-optics", "ten-by-fifty-binoculars", "short-glass"),
      "Harbour 10×50 binoculars",
      24,
      { tags: ["harbour"], aliases: ["/binoculars"] },
    ),
    short("/redlight", out.harbour("red-torch"), "Red torch", 9, { tags: ["harbour"] }),
    short(
      "/travelscope",
      out.saltmarsh("harbour-optics", "travel-refractor", "short-travel"),
      "66 mm travel refractor",
      6,
      { tags: ["harbour"] },
    ),
    short("/pier", out.gannet("quiet-mount", "garden-pier", "short-pier"), "Garden pier", 7, {
      tags: ["quiet mount"],
    }),
    short(
      "/steady",
      out.gannet("quiet-mount", "parallelogram-mount", "short-steady"),
      "Parallelogram mount",
      5,
      { tags: ["quiet mount"] },
    ),
    short("/tracker", out.gannet("quiet-mount", "star-tracker", "short-tracker"), "Star tracker", 8, {
      tags: ["quiet mount"],
    }),
    short("/barlow", out.starling("barlow-two"), "Two-times Barlow", 4, { tags: ["starling"] }),
    short("/zoom", out.starling("zoom-eight-to-twenty-four"), "Zoom eyepiece", 3, { tags: ["starling"] }),
    short("/almanac", out.at("slow-tide", "/almanac"), "Windowsill almanac", 11, { tags: ["books"] }),
    short("/socks", out.at("drowned-lens", "/socks"), "The socks (their shop has closed)", 6, {
      tags: ["warm"],
    }),
    short("/november", "/calendar/november", "This month's sky", 13, { tags: ["calendar"] }),
    short("/forty", "/reviews/harbour-eight-inch", "Forty nights, the long review", 10, {
      tags: ["reviews"],
    }),
    short("/start", "/first-nights/an-hour-with-nothing", "Where to begin", 15, {
      tags: ["first nights"],
      aliases: ["/begin"],
    }),
    short("/fernhill", "/dark-places/fernhill", "Three nights at Fernhill", 5, { tags: ["dark places"] }),
    short("/booklet", out.harbour(""), "Printed in the autumn booklet", 2, {
      tags: ["print"],
      query: "forward",
      parameters: "from=booklet",
    }),
    ...moreShortLinks(out).map(([address, destination, title, popularity, tag]) =>
      short(address, destination, title, popularity, { tags: [tag] }),
    ),
    short("/gift", out.harbour("travel-refractor"), "The christmas list, with a word before", 3, {
      tags: ["harbour"],
      status: 200,
      notice: {
        seconds: 20,
        text: "You leave the magazine for Harbour Optics, who pay us a little when you buy.",
      },
    }),
    short("/meteors", "/calendar/november", "The Leonids evening", 4, {
      tags: ["calendar"],
      validUntil: new Date(now + 12 * 86_400_000).toISOString(),
      afterEnd: "destination",
      endDestination: "/",
    }),
    short("/oldmoon", "/calendar/november", "Last month's moon", 0, {
      tags: ["calendar"],
      validUntil: new Date(now - 9 * 86_400_000).toISOString(),
    }),
  ];
}

/** Old addresses that still arrive: a chain, one that nearly goes round, one whose end is missing. */
export function demoRedirects(): DemoRoute[] {
  const from = (
    address: string,
    destination: string,
    popularity: number,
    more: Partial<WrittenRoute> = {},
  ): DemoRoute => ({
    kind: "redirect",
    host: "lowlantern.localhost",
    address,
    destination,
    popularity,
    ...more,
  });
  return [
    from("/reviews/harbour-8", "/reviews/harbour-eight-inch", 4, { title: "Renamed when it was finished" }),
    from("/review-harbour", "/reviews/harbour-8", 2, { title: "The oldest address; a chain" }),
    from("/blog/binoculars", "/first-nights/binoculars-before-telescopes", 3),
    from("/blog/eyepieces", "/instruments/eyepieces-you-will-keep", 2),
    from("/pier", "/instruments/a-pier-in-the-lawn", 2),
    from("/links", "/resources", 5),
    from("/shop", "/resources", 3, { status: 302 }),
    from("/this-month", "/calendar/november", 6, { status: 302, title: "Moved on each month" }),
    from("/calendar", "/this-month", 4, {
      title: "Nearly a circle: this month's page must not point back here",
    }),
    from("/cabins", "/dark-places/fernhill", 1),
    from("/podcast", "/talks/episodes", 1, { title: "Its page was never written" }),
    ...moreRedirects().map(([address, destination, popularity, more]) =>
      from(address, destination, popularity, more),
    ),
    {
      kind: "gone",
      host: "lowlantern.localhost",
      address: "/guestbook",
      title: "Full of advertisements",
      popularity: 1,
    },
    {
      kind: "gone",
      host: "lowlantern.localhost",
      address: "/forum",
      title: "Closed in its third year",
      popularity: 2,
    },
  ];
}

/** What readers typed and did not get, with how often. */
export const DEMO_MISSES: readonly (readonly [host: string, key: string, times: number, referrer: string])[] =
  [
    ["lntn.localhost", "/therteen", 9, ""],
    ["lntn.localhost", "/dobs", 6, ""],
    ["lntn.localhost", "/almanack", 14, ""],
    ["lowlantern.localhost", "/calender/november", 11, "http://forum.starry-neighbours.example/t/419"],
    ["lowlantern.localhost", "/resource", 7, ""],
    ["lowlantern.localhost", "/reviews/harbour-eight", 5, "http://hedge-and-sky.example/links"],
    ["lowlantern.localhost", "/calendar/october", 3, ""],
    [
      "lowlantern.localhost",
      "/articles/binoculars-before-telescopes",
      6,
      "http://hedge-and-sky.example/links",
    ],
    [
      "lowlantern.localhost",
      "/articles/an-hour-with-nothing",
      4,
      "http://forum.starry-neighbours.example/t/77",
    ],
    ["lowlantern.localhost", "/articles/where-to-look", 2, ""],
    ["lowlantern.localhost", "/print/12", 3, ""],
    ["lowlantern.localhost", "/print/14", 2, ""],
    ["lowlantern.localhost", "/print/19", 2, ""],
    ["lowlantern.localhost", "/instruments/dwe", 3, "http://lowlantern.localhost/resources"],
    ["lowlantern.localhost", "/wp-login.php", 41, ""],
    ["lowlantern.localhost", "/.env", 12, ""],
    ["lowlantern.localhost", "/vendor/phpunit/eval.php", 9, ""],
    ["lntn.localhost", "/robots.txt", 22, ""],
  ];
