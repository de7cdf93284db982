import type { WrittenRoute } from "../src/core/routes/route.ts";
import type { Outside } from "./page.ts";

type MoreShort = readonly [
  address: string,
  destination: string,
  title: string,
  popularity: number,
  tag: string,
];
type MoreRedirect = readonly [
  address: string,
  destination: string,
  popularity: number,
  more?: Partial<WrittenRoute>,
];

/** The rest of the short links: the ones of single articles, of print issues and of smaller things. */
export function moreShortLinks(out: Outside): MoreShort[] {
  const salt = (shop: string, item: string, sub: string): string => out.saltmarsh(shop, item, sub);
  return [
    ["/orion", "/calendar/november#orion", "Orion, this month", 4, "calendar"],
    ["/pleiades", "/calendar/november#pleiades", "The Pleiades, this month", 4, "calendar"],
    ["/andromeda", "/calendar/november#andromeda", "How to find the galaxy", 5, "calendar"],
    ["/jupiter", "/calendar/november#jupiter", "Jupiter's moons, night by night", 6, "calendar"],
    ["/saturn", "/calendar/november#saturn", "Saturn before bedtime", 3, "calendar"],
    ["/newmoon", "/calendar/november#new-moon", "The dark nights of the month", 5, "calendar"],
    ["/hour", "/first-nights/an-hour-with-nothing", "An hour with nothing", 7, "first nights"],
    ["/warm", "/first-nights/an-hour-with-nothing#warm", "How to stay warm", 3, "first nights"],
    [
      "/binos",
      "/first-nights/binoculars-before-telescopes",
      "Binoculars before telescopes",
      6,
      "first nights",
    ],
    ["/keepers", "/instruments/eyepieces-you-will-keep", "Eyepieces you will keep", 5, "instruments"],
    ["/lawnpier", "/instruments/a-pier-in-the-lawn", "A pier in the lawn", 3, "instruments"],
    ["/resources", "/resources", "What we lean on", 4, "print"],
    ["/cabin", "/dark-places/fernhill#cabin", "The cabin at Fernhill", 2, "dark places"],
    ["/darkmap", "/dark-places/fernhill#map", "Where it is dark", 3, "dark places"],
    ["/nights", "/reviews/harbour-eight-inch#nights", "The forty nights, one by one", 3, "reviews"],
    ["/verdict", "/reviews/harbour-eight-inch#verdict", "What we say in the end", 4, "reviews"],
    ["/torch", salt("harbour-optics", "red-torch", "short-torch"), "Red torch, tracked", 5, "harbour"],
    ["/eightinch", out.harbour("eight-inch-dobsonian"), "Harbour Dobsonian, from the poster", 2, "print"],
    [
      "/tenfifty",
      salt("harbour-optics", "ten-by-fifty-binoculars", "poster"),
      "10×50, from the poster",
      2,
      "print",
    ],
    [
      "/wide",
      salt("starling-eyepieces", "thirteen-millimetre-wide", "talk"),
      "The wide eyepiece, from the talk",
      3,
      "talks",
    ],
    ["/two", out.gannet("quiet-mount", "star-tracker", "talk"), "The tracker, from the talk", 2, "talks"],
    ["/lens", salt("harbour-optics", "travel-refractor", "talk"), "The refractor, from the talk", 2, "talks"],
    ["/mounts", out.quietMount(""), "Quiet Mount Works, everything", 2, "quiet mount"],
    [
      "/swing",
      out.gannet("quiet-mount", "parallelogram-mount", "letter"),
      "The swinging mount",
      2,
      "quiet mount",
    ],
    [
      "/follow",
      out.gannet("quiet-mount", "star-tracker", "letter"),
      "The tracker, from the letter",
      2,
      "quiet mount",
    ],
    [
      "/concrete",
      out.gannet("quiet-mount", "garden-pier", "letter"),
      "The pier, from the letter",
      1,
      "quiet mount",
    ],
    ["/lane", out.at("long-lane", "/gate/0"), "The long lane: five hops", 1, "oddities"],
    [
      "/leak",
      out.at("leaky-bucket", "/go?item=red-torch&partner=LL-2291"),
      "A partner that drops our account",
      1,
      "oddities",
    ],
    [
      "/polite",
      out.at("polite-nothing", "/offer"),
      "An offer that is gone but does not say so",
      1,
      "oddities",
    ],
    ["/round", out.at("roundabout", "/east"), "A partner who goes in circles", 1, "oddities"],
    ["/broken", out.at("drowned-lens", "/broken"), "A shop that fails", 1, "oddities"],
    ["/issue-one", "/", "Printed in the first issue", 1, "print"],
    ["/issue-two", "/", "Printed in the second issue", 1, "print"],
    ["/issue-three", "/resources", "Printed in the third issue", 2, "print"],
    ["/letter", "/first-nights/an-hour-with-nothing", "From the monthly letter", 3, "letter"],
    ["/letter-may", "/calendar/november", "From the letter of May", 0, "letter"],
    ["/letter-june", "/calendar/november", "From the letter of June", 0, "letter"],
    ["/answer", "/resources", "The quiz of the printed calendar", 2, "print"],
    ["/club", out.at("harbour-optics", "/"), "The club evening", 2, "talks"],
    ["/frost", "/instruments/a-pier-in-the-lawn", "Ground frost and piers", 1, "instruments"],
  ];
}

/** More old addresses: whole folders, years of an earlier system, some dead ones, one that is never reached. */
export function moreRedirects(): MoreRedirect[] {
  return [
    ["/blog", "/first-nights/$1", 3, { match: "prefix", title: "The blog of the first years" }],
    ["/tests/*", "/reviews/$1", 2, { match: "wildcard", title: "Reviews were tests once" }],
    [
      "/(20\\d\\d)/(\\d\\d)/(.+)",
      "/first-nights/$3",
      2,
      { match: "pattern", title: "Dates in the address, as the old system had them" },
    ],
    [
      "/tests/(\\w+)",
      "/resources",
      0,
      { match: "pattern", title: "Never reached: the wildcard above is older" },
    ],
    ["/en", "/$1", 2, { match: "prefix", title: "When there was a second language" }],
    ["/*.html", "/$1", 3, { match: "wildcard", title: "Addresses used to end in .html" }],
    ["/first-night", "/first-nights/an-hour-with-nothing", 2],
    ["/beginners", "/first-nights/an-hour-with-nothing", 3],
    ["/start-here", "/beginners", 1, { title: "A chain of two" }],
    ["/binoculars", "/first-nights/binoculars-before-telescopes", 3],
    ["/eyepieces", "/instruments/eyepieces-you-will-keep", 3],
    ["/gear", "/resources", 2],
    ["/what-we-use", "/gear", 1, { title: "Another chain" }],
    ["/fernhill", "/dark-places/fernhill", 2],
    ["/dark", "/dark-places/fernhill", 2],
    ["/observatory", "/instruments/a-pier-in-the-lawn", 1],
    ["/sky", "/calendar/november", 3, { status: 302 }],
    ["/moon", "/calendar/november", 2, { status: 302 }],
    ["/workshop", "/events/workshop", 1, { title: "The event's page is gone" }],
    ["/summer", "/events/summer-camp", 1, { title: "The event's page is gone" }],
    ["/newsletter", "/letters/latest", 2, { title: "Moved to another system, which was closed" }],
    ["/Impressum", "/resources", 1],
    ["/impressum", "/resources", 1],
    ["/dobsonian", "/reviews/harbour-eight-inch", 2],
  ];
}
