import type { PageInput } from "../src/core/pages/page.ts";
import { a, type DemoPage, type Outside } from "./page.ts";

/** The magazine's older pages: shorter, written over the years, and linked as they were at the time. */
export function olderPages(out: Outside, short: string): DemoPage[] {
  return [
    ...firstNights(out),
    ...instruments(out, short),
    ...darkPlaces(out),
    ...calendar(out, short),
    ...reviews(out),
  ];
}

const NEW_TAB = ' target="_blank"';

function page(path: string, category: string, title: string, description: string, html: string): DemoPage {
  return { path, title, description, category, html, publish: true } satisfies Partial<PageInput>;
}

function firstNights(out: Outside): DemoPage[] {
  return [
    page(
      "/first-nights/learning-ten-stars",
      "First nights",
      "Learning ten stars",
      "Ten are enough to find everything else by.",
      `<p>Nobody needs eighty-eight figures. Ten stars, learned by walking from one to the next, will carry you through a year, and none of them needs a chart.</p>
<h2>The walk</h2>
<p>Begin at the pan of the Plough and leave it by the handle: the first bright one is orange and is called Arcturus. Go on by the same curve and the next is blue. From there the walk is in ${a(out.at("almanac-house", "/item/garden-atlas"), "the garden atlas")}, on the page with the tea stain.</p>
<p>Do it on the night of your ${a("/first-nights/an-hour-with-nothing", "hour with nothing")}, and again a month later, when all of it has moved a hand’s width to the west.</p>`,
    ),
    page(
      "/first-nights/with-children",
      "First nights",
      "The night sky with children",
      "Short, early, and with something hot.",
      `<p>Half an hour is plenty. Go out while it is still a little light: the first star is a better game than the thousandth.</p>
<ul><li>Something hot in ${a(out.at("kettle-moor", "/item/night-flask"), "a flask that stays hot", NEW_TAB)}.</li><li>${a(out.at("dew-and-felt", "/item/felt-gloves"), "Gloves with open fingers")}, two sizes too big.</li><li>The moon. It forgives every instrument, and it is where children want to go.</li></ul>
<p>Leave the telescope indoors. ${a("/first-nights/binoculars-before-telescopes", "Binoculars")} on a broom handle suit every height in the family.</p>`,
    ),
    page(
      "/first-nights/where-to-stand",
      "First nights",
      "Where to stand in a lit street",
      "A map of your own garden, made with a hand.",
      `<p>Hold a hand over each lamp in turn and see how much comes back. After ten minutes you know the one corner from which a hedge, a shed and a hand hide everything. Ours is behind the compost.</p>
<p>A coat with a hood does what the hand did and leaves it free; ${a(out.at("dew-and-felt", "/item/observing-coat"), "the one we wear")} has a hood that keeps its shape. For what to do then, go back to ${a("/first-nights/an-hour-with-nothing", "the first hour")}.</p>`,
    ),
  ];
}

function instruments(out: Outside, short: string): DemoPage[] {
  return [
    page(
      "/instruments/mounts-that-stand-still",
      "Instruments",
      "Mounts that stand still",
      "Half of what you see is what holds the glass.",
      `<p>We have owned four tripods and given away three. What stands still is heavy, short, or sunk into the ground, and the last of these is ${a("/instruments/a-pier-in-the-lawn", "the pier in our lawn")}.</p>
<p>For the camera there is the ${a(out.gannet("quiet-mount", "star-tracker", "mounts"), "star tracker of Quiet Mount Works")}; on the windowsill of the shed stands ${a(out.quietMount("parallelogram-mount"), "their parallelogram")}, which we borrowed and never gave back.</p>`,
    ),
    page(
      "/instruments/a-red-torch",
      "Instruments",
      "A red torch is not a small thing",
      "Why the cheapest part of the kit decides the night.",
      `<p>Your eyes take half an hour to open and a second to close. All the difference is in the torch. Ours has two steps, of which we use the lower: ${a(out.saltmarsh("harbour-optics", "red-torch", "red-torch"), "Harbour’s red torch")}.</p>
<p>A reader, Wilhelmina, sends word that ${a(out.at("torch-letters", "/hooded"), "a hood of felt", ' rel="ugc"')} does the same for a bicycle lamp. We have not tried it.</p>`,
    ),
    page(
      "/instruments/charts-on-paper",
      "Instruments",
      "Charts on paper",
      "What a sheet of paper can do that a screen cannot.",
      `<p>It can get wet. It can be drawn on. And it does not light up your face when you ask it something.</p>
<p>We use ${a(out.saltmarsh("almanac-house", "garden-atlas", "charts"), "the garden atlas")} by the telescope and ${a(out.saltmarsh("almanac-house", "moon-by-evenings", "charts"), "the moon by evenings")} by the door; the almanac for the windowsill is at ${a(`http://${short}/almanac`, "lntn.localhost/almanac")}.</p>`,
    ),
  ];
}

function darkPlaces(out: Outside): DemoPage[] {
  return [
    page(
      "/dark-places/the-sea-wall",
      "Dark places",
      "The sea wall at Saltmarsh",
      "Flat, windy, and dark towards the water.",
      `<p>North is the town and useless. South is the sea, and nothing on it but one buoy every ten seconds. Stand with your back to the wall: it is warm until midnight.</p>
<p>The café at the end keeps ${a(out.at("closed-shop", "/sea-wall-cafe"), "its opening hours")} on a page that has not been right for years. Take ${a(out.at("kettle-moor", "/item/night-flask"), "a flask")}.</p>`,
    ),
    page(
      "/dark-places/how-dark-is-dark",
      "Dark places",
      "How dark is dark?",
      "A scale made of things you can see, not of numbers.",
      `<ol><li>You can read the garden gate’s number.</li><li>You can see that there is a gate.</li><li>The Plough has seven stars, and the fourth is not hard.</li><li>The Milky Way is there if you know.</li><li>The Milky Way is there.</li><li>You cannot find the Plough, because of all the stars in it.</li></ol>
<p>Our lawn is a three. ${a("/dark-places/fernhill", "Fernhill")} is a five and, once, was a six; ${a(out.at("fernhill-cabins", "/item/north-cabin"), "the north cabin")} is the one farthest from the gate.</p>`,
    ),
  ];
}

function calendar(out: Outside, short: string): DemoPage[] {
  return [
    page(
      "/calendar/october",
      "The calendar",
      "The October sky",
      "The square, the galaxy, and the last warm nights.",
      `<p>The great square stands in the south by ten. Half-way up its left side a step to the east leads to the galaxy that ${a("/calendar/november", "November")} has higher.</p>
<p>Warm nights are over; ${a("/first-nights/where-to-stand", "know your corner")} before they are cold.</p>`,
    ),
    page(
      "/calendar/december",
      "The calendar",
      "The December sky",
      "Geminids, and a garden under frost.",
      `<p>On the thirteenth the Geminids come slowly and in numbers. A blanket on the lawn, ${a("/first-nights/an-hour-with-nothing", "an hour with nothing")}, and ${a(out.at("dew-and-felt", "/item/observing-coat"), "the observing coat")} over it.</p>
<p>Orion is in the south at midnight. The ${a(out.saltmarsh("starling-eyepieces", "thirteen-millimetre-wide", "december"), "13 mm")} shows the trapezium in one piece with its cloud. Gifts for somebody who looks up stand at ${a(`http://${short}/gift`, "lntn.localhost/gift")}.</p>`,
    ),
    page(
      "/calendar/january",
      "The calendar",
      "The January sky",
      "Clear, cold, and early.",
      `<p>By six it is night. That is the whole charm of January: you can see everything and be in bed by nine.</p>
<p>The twins stand above Orion; the cluster at their feet is a fist of dust in the finder and forty suns in ${a("/reviews/harbour-ten-by-fifty", "the 10×50")}. Keep the focuser from freezing: ${a("/reviews/harbour-eight-inch", "ours did")}.</p>`,
    ),
  ];
}

function reviews(out: Outside): DemoPage[] {
  return [
    page(
      "/reviews/harbour-ten-by-fifty",
      "Reviews",
      "Ten years with the Harbour 10×50",
      "The plainest good binoculars we know.",
      `<p>They have been lent to eleven people and came back from ten. The eleventh sent a postcard.</p>
<h2>What is good</h2>
<p>Even to the edge, nearly. The caps stay on. The ${a(out.saltmarsh("harbour-optics", "ten-by-fifty-binoculars", "review-ten-by-fifty"), "price on Harbour’s page")} has hardly moved in ten years.</p>
<h2>What is not</h2>
<p>Heavy on the neck; a ${a(out.gannet("quiet-mount", "parallelogram-mount", "review-ten-by-fifty"), "parallelogram")} takes the weight, and ${a("/first-nights/binoculars-before-telescopes", "a broom")} takes some of it.</p>`,
    ),
    page(
      "/reviews/starling-zoom",
      "Reviews",
      "The Starling zoom, and why we sold it",
      "One eyepiece for everything is one compromise for everything.",
      `<p>It is well made, and on the moon it is a pleasure: turn the barrel and go down. But at the low end, where one looks for things, its field is narrow, and looking for things is most of what we do.</p>
<p>If you have one hand and one pocket, ${a(out.saltmarsh("starling-eyepieces", "zoom-eight-to-twenty-four", "review-zoom"), "the 8 to 24 mm zoom")} is for you. If not, read ${a("/instruments/eyepieces-you-will-keep", "which three we kept")}.</p>`,
    ),
    page(
      "/reviews/frames-for-the-moon",
      "Reviews",
      "A frame for the moon",
      "What became of the picture over the stove.",
      `<p>The picture is ours; the frame is from ${a(out.at("north-window", "/item/a3-frame"), "North Window", NEW_TAB)}, in the size that takes a whole moon with its name under it. Two winters over a stove have not warped it.</p>
<p>How the picture was made stands with ${a("/instruments/mounts-that-stand-still", "the mounts")}. The letter that first told us of them is ${a(out.at("owl-post", "/item/the-letter"), "Owl Post")}.</p>`,
    ),
  ];
}
