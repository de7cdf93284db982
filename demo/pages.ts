import { destination } from "../src/core/ground/fields.ts";
import type { StoredItem } from "../src/core/navigation/navigation.ts";
import type { BlockInput } from "../src/core/pages/page.ts";
import { olderPages } from "./more-pages.ts";
import { type Outside, a, type DemoPage } from "./page.ts";

/** A picture from the demo's uploads, with its caption. */
function picture(
  file: string,
  alt: string,
  caption: string,
  more: { width: string; align?: string; href?: string },
): string {
  const image = `<img src="/files/${file}" alt="${alt}">`;
  const linked = more.href ? a(more.href, image) : image;
  const align = more.align ? ` data-align="${more.align}"` : "";
  return `<figure data-width="${more.width}"${align}>${linked}<figcaption>${caption}</figcaption></figure>`;
}

/** The files of the demo, in `demo/pictures`, with the alternative text that a page begins with. */
export const DEMO_PICTURES: readonly (readonly [file: string, alt: string])[] = [
  ["eight-inch.svg", "A big Dobsonian telescope on a lawn at night"],
  ["moon-three-days.svg", "The moon, three days old, above a garden with one lit window"],
  ["pier.jpg", "A concrete pier in a lawn, and a hedgehog beside it"],
];

/** The shared blocks: a footer on every page, and a note beside reviews. */
export function demoBlocks(out: Outside): BlockInput[] {
  return [
    {
      title: "Footer",
      placement: { place: "footer", shown: "all", on: [] },
      publish: true,
      html: `<p>Some links on these pages pay us a little when you buy; our account is {{account}}, and it changes nothing about what we say. How that works stands on the ${a("/resources", "resources page")}. Write to us at ${a("mailto:post@lowlantern.example", "post@lowlantern.example")}.</p>`,
    },
    {
      title: "Beside reviews",
      placement: { place: "sidebar", shown: "categories", on: ["Reviews"] },
      publish: true,
      html: `<h2>How we review</h2><p>We buy what we review, and use it for at least ten nights. Prices move, so we link to ${a(out.harbour(""), "the makers’ own pages")} instead of printing them.</p>`,
    },
  ];
}

/** The navigation: a heading with a landing page and pages below it, single pages, and one way out. */
export function demoNavigation(idOf: (path: string) => string, short: string): StoredItem[] {
  const page = (label: string, path: string, children: StoredItem[] = []): StoredItem => ({
    id: path,
    label,
    kind: "page",
    page: idOf(path),
    children,
  });
  return [
    {
      id: "first-nights",
      label: "First nights",
      kind: "heading",
      page: idOf("/first-nights/an-hour-with-nothing"),
      children: [
        page("An hour with nothing", "/first-nights/an-hour-with-nothing"),
        page("Binoculars first", "/first-nights/binoculars-before-telescopes"),
      ],
    },
    page("Reviews", "/reviews/harbour-eight-inch"),
    page("November", "/calendar/november"),
    page("Resources", "/resources"),
    {
      id: "thirteen",
      label: "Our eyepiece",
      kind: "route",
      address: destination.parse(`http://${short}/thirteen`),
      target: "same",
      children: [],
    },
  ];
}

/** The magazine's pages. `short` is the host kept for short links, with its port. */
export function demoPages(out: Outside, short: string): DemoPage[] {
  return [...mainPages(out, short), ...olderPages(out, short)];
}

function mainPages(out: Outside, short: string): DemoPage[] {
  return [
    {
      path: "/",
      title: "Low Lantern",
      description: "Two people, one back garden, and the sky above it.",
      category: "",
      html: `<p>We began with a pair of borrowed binoculars and a frozen lawn. Eleven winters later we still start most nights on that lawn, and this magazine is what we learned on it: what you can see without spending much, what is worth the money when you do, and where the dark still is.</p>
<h2>If you are new here</h2>
<p>Read ${a("/first-nights/an-hour-with-nothing", "An hour with nothing")} before you buy anything at all. Then, when the hour has turned into a habit, ${a("/first-nights/binoculars-before-telescopes", "Binoculars before telescopes")} will save you from the mistake we made.</p>
<h2>This month</h2>
<p>${a("/reviews/harbour-eight-inch", "Our long review of the Harbour eight-inch")} is finished at last: forty nights, two of them good. And the ${a("/calendar/november", "November calendar")} has a meteor shower that falls on a moonless night, which happens about as often as a polite fox.</p>
<p>Everything we lean on, from charts to clothes pegs, stands on the ${a("/resources", "resources page")}.</p>`,
    },
    {
      path: "/first-nights/an-hour-with-nothing",
      title: "An hour with nothing",
      description: "No telescope, no chart, no plan. The best first night there is.",
      category: "First nights",
      inNavigation: true,
      html: `<p>Put on more than you think you need. Switch off the kitchen light, and ask whoever is indoors to leave it off. Then sit down with your back to the house and do nothing for an hour.</p>
<p>For the first five minutes you will see what you have always seen. After ten, stars appear between the stars. After thirty, the sky has a grain to it, and you will catch yourself looking at things you have no words for. That is dark adaptation, and nothing you can buy replaces it.</p>
<h2>The one thing to bring</h2>
<p>A torch that does not undo the half hour. A red one, dimmed until it is nearly useless, is about right. Ours is the ${a(out.harbour("red-torch"), "two-step red torch from Harbour Optics")}; a bicycle lamp under red cellophane does the same for nothing.</p>
<h2>What to look for</h2>
<ul><li>The colour of stars. They have it; your eye needs time to admit it.</li><li>One satellite. It does not blink. Follow it until the earth's shadow takes it.</li><li>Where the haze over the town ends. That line decides where your telescope will point for years.</li></ul>
<p>When the hour is over, write down three things. If you did this twice, you are ready for ${a("/first-nights/binoculars-before-telescopes", "a pair of binoculars")}. If you want company, the ${a("/dark-places/fernhill", "cabins at Fernhill")} have a lawn far darker than ours.</p>`,
    },
    {
      path: "/first-nights/binoculars-before-telescopes",
      title: "Binoculars before telescopes",
      description: "Why the second-hand pair in the hall cupboard beats the tube in the shop window.",
      category: "First nights",
      html: `<p>A telescope shows you one thing at a time. Binoculars show you where you are. For the first year that is what is missing, and it is why so many first telescopes end their days as coat stands.</p>
<p>Look for <strong>10×50</strong>: the first number is how much they magnify, the second the width of each front lens in millimetres. More magnification shakes; narrower lenses starve. If nobody in the family has a pair, the ${a(out.saltmarsh("harbour-optics", "ten-by-fifty-binoculars", "binoculars-guide"), "Harbour 10×50")} is the plainest good one we know, and the one we lend out.</p>
<h2>Holding them still</h2>
<p>Elbows on the arms of a garden chair will do for the moon. For anything fainter, a broom handle under the bridge is surprisingly good. And once you are spoilt, there is the ${a(out.gannet("quiet-mount", "parallelogram-mount", "binoculars-guide"), "parallelogram mount from Quiet Mount Works")}, which lets a child and a grown-up look at the same thing without anybody touching a screw.</p>
<h2>Ten things that reward them</h2>
<ol><li>The moon, three days old, with the dark part glowing.</li><li>The Pleiades: six to the eye, forty in the glass.</li><li>The sword of Orion.</li><li>The Double Cluster, low in the north-east.</li><li>Jupiter's four, on any night you like.</li></ol>
<p>The other five are in the ${a("/calendar/november", "calendar")}, because they depend on the month.</p>`,
    },
    {
      path: "/instruments/eyepieces-you-will-keep",
      title: "Eyepieces you will keep",
      description: "Three, and a reason for each.",
      category: "Instruments",
      inNavigation: true,
      html: `<p>Telescopes come and go. Eyepieces stay, and move with you from one tube to the next. So it is worth having few and good ones, and it is worth knowing why you have each.</p>
<h2>A wide one, for finding</h2>
<p>Low power, wide field: you see where you are before you see what is there. Anything around 30 mm serves.</p>
<h2>One for nearly everything</h2>
<p>If we had to keep one it would be the ${a(out.saltmarsh("starling-eyepieces", "thirteen-millimetre-wide", "eyepieces"), "13 mm from Starling Eyepieces")}. It frames the moon with room around it, it is comfortable with glasses on, and it has been in the grass twice and come up working. We bought ours. (The link pays us a little if you buy yours; the disclosure below says how that works.)</p>
<h2>A short one, for the two nights a year</h2>
<p>High power is for steady air, and steady air is for other people. Rather than a short eyepiece, take a ${a(out.starling("barlow-two"), "two-times Barlow")}: it halves everything you already own. The ${a(out.starling("zoom-eight-to-twenty-four"), "8 to 24 mm zoom", ' rel="nofollow"')} is the other way of doing it, with a narrower view and a single hand.</p>
<p>Say it aloud and it is easy to remember: ${a(`http://${short}/thirteen`, "lntn.localhost/thirteen")} leads to the one we use.</p>`,
    },
    {
      path: "/instruments/a-pier-in-the-lawn",
      title: "A pier in the lawn",
      description: "What it took, what it cost, and what the hedgehogs thought.",
      category: "Instruments",
      html: `<p>The trouble with a tripod is not that it shakes. It is that it is never where you left it. After nine winters of levelling legs by torchlight we dug a hole.</p>
<p>The hole is sixty centimetres deep and as wide as a bucket. The ${a(out.gannet("quiet-mount", "garden-pier", "pier"), "pier itself is the short one from Quiet Mount Works")}; a steel post and a weld by somebody patient would do as well. Four bags of concrete, one wet weekend, and three weeks of not touching it.</p>
<blockquote><p>Measure true north before the concrete, not after. We know of two gardens where this sentence came too late.</p></blockquote>
${picture("pier.jpg", "A concrete pier in a lawn at night, and a hedgehog beside it", "The pier after three weeks of not being touched, and the one who touched it first.", { width: "full" })}
<p>What changed is time. Cover off, eyepiece in, looking: four minutes. It used to be twenty-five, and on a night with gaps between clouds that is the difference between seeing something and not. The ${a("/reviews/harbour-eight-inch", "eight-inch")} does not need a pier, being a thing that sits on the ground; the ${a(out.saltmarsh("harbour-optics", "travel-refractor", "pier"), "little refractor")} very much does.</p>`,
    },
    {
      path: "/reviews/harbour-eight-inch",
      title: "Forty nights with the Harbour eight-inch",
      description: "A big, plain, honest telescope, and what it asks of your back.",
      category: "Reviews",
      inNavigation: true,
      html: `<p>It arrived in two boxes, one of which the postman rolled. That is the first thing to know about an eight-inch Dobsonian: it is a cupboard on a turntable. The second thing to know is that for what it costs nothing shows more.</p>
<h2>What is in the box</h2>
<p>A tube, a base in flat pieces, a finder that we replaced, and two eyepieces of which one is good. Setting it up took an evening and one argument. The ${a(out.saltmarsh("harbour-optics", "eight-inch-dobsonian", "review-eight-inch"), "current price is on Harbour's own page")}, and it moves about, so we do not print it.</p>
${picture("eight-inch.svg", "The eight-inch on its base, pointing high over the lawn", "It stands on the lawn and not on a tripod. The cat was asked to leave.", { width: "medium", align: "right", href: out.saltmarsh("harbour-optics", "eight-inch-dobsonian", "review-picture") })}
<h2>Under the sky</h2>
<p>On the moon it is ruthless. On Saturn it gave us the gap in the rings on the first steady night, without coaxing. On galaxies it is what your sky lets it be: from our lawn, smudges with a shape; from ${a("/dark-places/fernhill", "Fernhill")}, arms.</p>
<p>We used it mostly with ${a(out.saltmarsh("starling-eyepieces", "thirteen-millimetre-wide", "review-eight-inch"), "the Starling 13 mm")}, which suits it so well that we stopped changing eyepieces.</p>
<h2>What we did not like</h2>
<ul><li>The base gathers dew and swells. Two coats of varnish cured it.</li><li>The focuser is stiff below freezing. So were we.</li><li>Carrying it. One person can; one person should not.</li></ul>
<h2>Who it is for</h2>
<p>Somebody with a ground-floor door, a year of ${a("/first-nights/binoculars-before-telescopes", "binoculars")} behind them, and a friend. If you travel, take the ${a(out.harbour("travel-refractor"), "66 mm refractor")} instead and see less, oftener.</p>`,
    },
    {
      path: "/dark-places/fernhill",
      title: "Three nights at Fernhill",
      description: "Cabins, a lawn, no lamps, and a landlord who means it.",
      category: "Dark places",
      inNavigation: true,
      html: `<p>There is a switch by the gate at Fernhill that turns off everything: paths, porch, the lot. The landlord throws it at nine whether you are in bed or not. On the second night we understood that this is not a quirk but the product.</p>
<p>The Milky Way casts no shadow there, whatever the brochure says. But it has structure down to the horizon, and the gegenschein, which we had filed under things other people see, was simply present.</p>
<h2>Practical matters</h2>
<p>Six cabins, booked out around every new moon. Bring ${a(out.harbour("ten-by-fifty-binoculars"), "binoculars")} even if you bring a telescope, a hat for indoors, and food; the shop keeps country hours. Write to the landlord at ${a("mailto:cabins@fernhill.example", "cabins@fernhill.example")} or ring ${a("tel:+441632960144", "01632 960144")} after dark, when he is up.</p>
<p>What we saw, with times, is in the ${a("/calendar/november", "calendar")}. What we saw it with: ${a("/reviews/harbour-eight-inch", "the eight-inch")}, and a ${a(out.gannet("quiet-mount", "star-tracker", "fernhill"), "small tracker")} for the camera.</p>`,
    },
    {
      path: "/calendar/november",
      title: "The November sky",
      description: "Night by night, from a garden at fifty-two north.",
      category: "The calendar",
      inNavigation: true,
      html: `<p>All times are for a garden with a view to the south and a fence to the north. Add a quarter of an hour for hills.</p>
<h2>First week</h2>
<p>The moon is late and thin, so begin with the autumn square and step down to the great galaxy in Andromeda. In ${a("/first-nights/binoculars-before-telescopes", "10×50 binoculars")} it is an oval of breath on glass. It is also the farthest thing you will ever see with what you were born with.</p>
<h2>Around the seventeenth</h2>
<p>Leonids, and no moon. They come fast and from the east after midnight. No instrument helps: take a blanket, ${a("/first-nights/an-hour-with-nothing", "an hour with nothing")}, and a ${a(out.harbour("red-torch"), "red torch")} for the thermos.</p>
<h2>Last week</h2>
<p>Orion is up before bedtime. Start at the sword with whatever you have. If it is an ${a("/reviews/harbour-eight-inch", "eight-inch")}, put in the ${a(out.starling("thirteen-millimetre-wide"), "13 mm")} and stay on the Trapezium until your feet complain.</p>
<p>The paper almanac we keep on the windowsill is at ${a(`http://${short}/almanac`, "lntn.localhost/almanac")}.</p>`,
    },
    {
      path: "/resources",
      title: "What we lean on",
      description: "Shops, charts, clothes and clothes pegs. We pay for all of it ourselves.",
      category: "",
      inNavigation: true,
      html: `<p>Things we use, in the order in which we would buy them again. Links marked in the page's source as sponsored pay us a share; the list would be the same without.</p>
<h2>To see with</h2>
<ul><li>${a(out.saltmarsh("harbour-optics", "ten-by-fifty-binoculars", "resources"), "Harbour 10×50 binoculars")}, the pair we lend out.</li><li>${a(out.saltmarsh("harbour-optics", "eight-inch-dobsonian", "resources"), "Harbour eight-inch Dobsonian")}, reviewed ${a("/reviews/harbour-eight-inch", "over forty nights")}.</li><li>${a(out.saltmarsh("starling-eyepieces", "thirteen-millimetre-wide", "resources"), "Starling 13 mm eyepiece")}, short: ${a(`http://${short}/thirteen`, "lntn.localhost/thirteen")}.</li><li>${a(out.starling("barlow-two"), "Starling two-times Barlow")}.</li></ul>
<h2>To hold it still</h2>
<ul><li>${a(out.gannet("quiet-mount", "garden-pier", "resources"), "Quiet Mount garden pier")}, and ${a("/instruments/a-pier-in-the-lawn", "how we sank it")}.</li><li>${a(out.gannet("quiet-mount", "parallelogram-mount", "resources"), "Quiet Mount parallelogram")} for two observers of different heights.</li><li>A broom.</li></ul>
<h2>To keep warm</h2>
<p>Wool, twice. ${a(`http://${short}/socks`, "The socks")} have a page of their own by popular request.</p>
<h2>To write to us</h2>
<p>${a("mailto:post@lowlantern.example", "post@lowlantern.example")}. We answer on cloudy nights, so quickly.</p>`,
    },
    {
      path: "/instruments/dew",
      title: "Dew, and other enemies",
      description: "Notes towards an article.",
      category: "Instruments",
      html: `<p>Still to be written: the hair dryer, the foam collar, and why the ${a(out.harbour("travel-refractor"), "refractor")} stays dry when the ${a("/reviews/harbour-eight-inch", "eight-inch")} does not.</p>`,
    },
  ].map((page) => ({ ...page, publish: page.path !== "/instruments/dew" }));
}
