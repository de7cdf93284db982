import { destination } from "../src/core/ground/fields.ts";
import { reportColumnsSchema } from "../src/core/earnings/earning.ts";
import type { CreativeInput } from "../src/core/creatives/creative.ts";
import { programInputSchema, type Network, type ProgramInput } from "../src/core/programs/program.ts";
import { NETWORKS, REPORT_COLUMNS, SHOPS, type NetworkHost } from "./outside-world.ts";
import { seeded } from "./seeded.ts";

const DAY_MS = 86_400_000;
const PAID_AGO_DAYS = 45;

const ACCOUNTS: Readonly<Record<NetworkHost, string>> = {
  "go.saltmarsh-partners.localhost": "LL-2291",
  "hop.gannet-row.localhost": "lowlantern",
};

/** The networks that Low Lantern works with. */
export function demoNetworks(port: number): Omit<Network, "id">[] {
  return (Object.keys(NETWORKS) as NetworkHost[]).map((host) => ({
    name: NETWORKS[host].name,
    hosts: [host],
    catalogue: destination.parse(`http://${host}:${port}/catalogue.json`),
    report: destination.parse(`http://${host}:${port}/report.csv?account=${ACCOUNTS[host]}`),
  }));
}

const MORE: Readonly<Record<string, Partial<ProgramInput>>> = {
  "harbour-optics": {
    state: "approved",
    payoutThreshold: "50",
    payoutMethod: "Transfer",
    payoutDay: 15,
    epc: { d7: "17.20", d30: "18.60", d90: "16.90" },
    tags: ["telescopes"],
    contacts: "Ines Varga, partners@harbour-optics.example",
    notes: "Answers within a day. Asks to be told before a review is printed.",
    termsReview: "2027-01-15",
  },
  "starling-eyepieces": {
    state: "approved",
    payoutThreshold: "50",
    payoutMethod: "Transfer",
    payoutDay: 15,
    epc: { d7: "24.10", d30: "26.35", d90: "25.00" },
    tags: ["eyepieces"],
    nextStep: "Ask whether the 13 mm stays in the range",
    nextStepDue: "2026-12-04",
  },
  "quiet-mount": {
    state: "approved",
    payoutThreshold: "80",
    payoutMethod: "Transfer",
    payoutDay: 1,
    epc: { d7: "25.00", d30: "27.90", d90: "29.40" },
    tags: ["mounts"],
    notes: "Pays by the referrer: no noreferrer on its links.",
  },
  "almanac-house": {
    state: "approved",
    payoutThreshold: "30",
    payoutMethod: "Transfer",
    payoutDay: 15,
    epc: { d7: "9.80", d30: "11.20", d90: "10.40" },
    tags: ["books"],
  },
  "fernhill-cabins": {
    state: "applied",
    payoutThreshold: "100",
    payoutMethod: "Voucher",
    epc: { d7: null, d30: "18.00", d90: null },
    tags: ["stays"],
    nextStep: "They want to see the visit page",
    nextStepDue: "2026-11-30",
  },
  "dew-and-felt": { state: "considering", epc: { d7: null, d30: "21.70", d90: null }, tags: ["clothing"] },
  "kettle-moor": {
    state: "paused",
    payoutThreshold: "50",
    epc: { d7: null, d30: "15.50", d90: "14.10" },
    tags: ["kitchen"],
    notes: "Out of stock until spring.",
  },
  "north-window": { state: "considering", tags: ["pictures"] },
  "owl-post": { state: "closed", tags: ["letters"], notes: "Closed its program in the summer." },
};

/** Low Lantern's nine programs. */
export function demoPrograms(port: number, now: number): ProgramInput[] {
  const paidUntil = new Date(now - PAID_AGO_DAYS * DAY_MS).toISOString().slice(0, 10);
  return (Object.entries(NETWORKS) as [NetworkHost, (typeof NETWORKS)[NetworkHost]][]).flatMap(
    ([host, { name, label, shops }]) =>
      shops.map((key) => {
        const domain = `${key}.localhost`;
        const shop = SHOPS[domain]!;
        return programInputSchema.parse({
          name: shop.name,
          network: name,
          siteAddress: `http://${domain}:${port}/`,
          signInAddress: `http://${host}:${port}/`,
          trackingId: ACCOUNTS[host],
          template: `http://${host}:${port}/c/{id}/${key}?to={destination}&${label}={sub}`,
          domains: [domain],
          commission: shop.flat ? (shop.commission / 100).toFixed(2) : String(shop.commission),
          commissionKind: shop.flat ? "flat" : "percent",
          cookieDays: shop.cookieDays,
          needsReferrer: shop.needsReferrer ?? false,
          paidUntil,
          ...MORE[key],
        });
      }),
  );
}

/** Snippets that Harbour Optics gives out, as it gives them out. */
export function demoCreatives(port: number): CreativeInput[] {
  const href = `http://go.saltmarsh-partners.localhost:${port}/c/{id}/harbour-optics?to=%2F&amp;sub={sub}`;
  return [
    {
      name: "Night sky banner",
      html: `<a href="${href}"><img src="http://harbour-optics.localhost:${port}/banner.svg" width="300" height="100" alt="Harbour Optics: glass for dark nights"></a><script>/* theirs */</script>`,
    },
    {
      name: "A line for the footer",
      html: `<a href="${href}">Telescopes and binoculars from Harbour Optics</a>`,
    },
  ];
}

/** Which labels sell what, and how often in a hundred days. */
const SELLING = [
  ["go.saltmarsh-partners.localhost", "harbour-optics", "ten-by-fifty-binoculars", "short-glass", 15],
  ["go.saltmarsh-partners.localhost", "harbour-optics", "eight-inch-dobsonian", "short-dob", 6],
  ["go.saltmarsh-partners.localhost", "harbour-optics", "eight-inch-dobsonian", "review-eight-inch", 9],
  ["go.saltmarsh-partners.localhost", "harbour-optics", "ten-by-fifty-binoculars", "binoculars-guide", 14],
  ["go.saltmarsh-partners.localhost", "starling-eyepieces", "thirteen-millimetre-wide", "short-thirteen", 17],
  ["go.saltmarsh-partners.localhost", "starling-eyepieces", "thirteen-millimetre-wide", "eyepieces", 12],
  ["go.saltmarsh-partners.localhost", "starling-eyepieces", "barlow-two", "resources", 5],
  ["hop.gannet-row.localhost", "quiet-mount", "garden-pier", "short-pier", 4],
  ["hop.gannet-row.localhost", "quiet-mount", "star-tracker", "fernhill", 5],
  ["hop.gannet-row.localhost", "quiet-mount", "garden-pier", "pier", 7],
  ["hop.gannet-row.localhost", "quiet-mount", "parallelogram-mount", "someone-elses-label", 2],
] as const;

const DAYS = 100;
const SETTLED_AFTER_DAYS = 30;

export const DEMO_COLUMNS = reportColumnsSchema.parse({
  reference: "order_id",
  kind: "type",
  at: "date",
  commission: "commission",
  amount: "sale_amount",
  currency: "currency",
  state: "status",
  subId: "sub_id",
  program: "program",
  clicks: "clicks",
  dates: "ymd",
  decimal: ".",
});

/** Readers who came by a label on a day, told by both. */
export type ClickedLabels = ReadonlyMap<string, { label: string; day: string; clicks: number }>;

/**
 * What the networks report of the last hundred days, as CSV by the network's name. They count a little less on short
 * links than was `clicked`: some readers' browsers keep them out.
 */
export function demoReports(now: number, clicked: ClickedLabels): Map<string, string> {
  const random = seeded(4711);
  const reports = new Map<string, string[][]>();
  let order = 1;
  for (const [host, key, product, label, times] of SELLING) {
    const shop = SHOPS[`${key}.localhost`]!;
    const [, cents] = shop.products[product]!;
    const program = label === "someone-elses-label" ? "North Window" : shop.name;
    const { name } = NETWORKS[host];
    const rows = reports.get(name) ?? [[...REPORT_COLUMNS]];
    reports.set(name, rows);
    for (let sale = 0; sale < times; sale += 1) {
      const ago = Math.floor(random() * DAYS);
      const at = new Date(now - ago * DAY_MS - Math.floor(random() * DAY_MS)).toISOString();
      const state = random() < 0.08 ? "reversed" : ago > SETTLED_AFTER_DAYS ? "approved" : "pending";
      const commission = Math.round((cents * shop.commission) / 100);
      rows.push([
        `LL-${order}`,
        "sale",
        at,
        program,
        label,
        (cents / 100).toFixed(2),
        (commission / 100).toFixed(2),
        "EUR",
        state,
        "",
      ]);
      order += 1;
    }
    const ours = [...clicked.values()].filter((one) => one.label === label);
    for (const { day, clicks } of ours.length > 0 ? ours : daysOf(now, times, random)) {
      const counted = Math.round(clicks * (0.9 + random() * 0.1));
      if (counted > 0) rows.push(["", "click", day, program, label, "", "", "", "", String(counted)]);
    }
  }
  return new Map([...reports].map(([name, rows]) => [name, rows.map((row) => row.join()).join("\n")]));
}

// A label that stands in pages, where only the network counts.
function daysOf(now: number, times: number, random: () => number): { day: string; clicks: number }[] {
  return Array.from({ length: DAYS }, (_, ago) => ({
    day: new Date(now - ago * DAY_MS).toISOString().slice(0, 10),
    clicks: Math.floor(random() * (1 + times / 4)),
  }));
}
