/** A merchant of the simulated world. */
export interface Shop {
  name: string;
  /** By the last part of their address, each with its price in cents. */
  products: Readonly<Record<string, readonly [title: string, cents: number]>>;
  /** What a network pays for a reader who buys, in percent; in cents where `flat`. */
  commission: number;
  flat?: boolean;
  about: string;
  category: string;
  cookieDays: number;
  needsReferrer?: boolean;
}

/** Every merchant, by its host. */
export const SHOPS: Readonly<Record<string, Shop>> = {
  "harbour-optics.localhost": {
    name: "Harbour Optics",
    commission: 6,
    cookieDays: 30,
    category: "telescopes",
    about: "Telescopes and binoculars from a shop on a quay, with a workshop that answers letters.",
    products: {
      "eight-inch-dobsonian": ["Eight-inch Dobsonian", 54900],
      "ten-by-fifty-binoculars": ["10×50 binoculars", 13900],
      "red-torch": ["Red torch, two brightnesses", 1900],
      "travel-refractor": ["Travel refractor, 66 mm", 38900],
    },
  },
  "quiet-mount.localhost": {
    name: "Quiet Mount Works",
    commission: 9,
    cookieDays: 45,
    category: "mounts",
    needsReferrer: true,
    about: "Piers, parallelograms and trackers, made in one workshop.",
    products: {
      "garden-pier": ["Garden pier", 24900],
      "parallelogram-mount": ["Parallelogram mount", 17900],
      "star-tracker": ["Star tracker", 32900],
    },
  },
  "starling-eyepieces.localhost": {
    name: "Starling Eyepieces",
    commission: 8.5,
    cookieDays: 30,
    category: "eyepieces",
    about: "Eyepieces that are comfortable with glasses on.",
    products: {
      "thirteen-millimetre-wide": ["13 mm wide-field eyepiece", 18900],
      "barlow-two": ["Two-times Barlow", 7900],
      "zoom-eight-to-twenty-four": ["Zoom, 8 to 24 mm", 21900],
    },
  },
  "almanac-house.localhost": {
    name: "Almanac House Press",
    commission: 12,
    cookieDays: 60,
    category: "books",
    about: "Charts and yearbooks for people who look up.",
    products: {
      "garden-atlas": ["The garden atlas", 3400],
      "moon-by-evenings": ["The moon by evenings", 2200],
    },
  },
  "fernhill-cabins.localhost": {
    name: "Fernhill Dark-Sky Cabins",
    commission: 1500,
    flat: true,
    cookieDays: 90,
    category: "stays",
    about: "Six cabins on a hill without a street lamp; a booking pays the same whatever it costs.",
    products: {
      "north-cabin": ["The north cabin, two nights", 19800],
      "orchard-cabin": ["The orchard cabin, two nights", 16400],
    },
  },
  "dew-and-felt.localhost": {
    name: "Dew and Felt",
    commission: 7,
    cookieDays: 30,
    category: "clothing",
    about: "Coats, gloves and blankets for long hours outside.",
    products: {
      "observing-coat": ["Observing coat", 14900],
      "felt-gloves": ["Felt gloves, open fingers", 2900],
    },
  },
  "kettle-moor.localhost": {
    name: "Kettle Moor Flasks",
    commission: 5,
    cookieDays: 14,
    category: "kitchen",
    about: "Flasks that stay hot until the moon sets.",
    products: { "night-flask": ["Night flask", 3900] },
  },
  "north-window.localhost": {
    name: "North Window Framing",
    commission: 10,
    cookieDays: 30,
    category: "pictures",
    about: "Prints and frames for pictures of the sky.",
    products: { "a3-frame": ["Frame, A3", 5900] },
  },
  "owl-post.localhost": {
    name: "Owl Post Letters",
    commission: 200,
    flat: true,
    cookieDays: 7,
    category: "letters",
    about: "A weekly letter about the sky; each new reader pays a fixed sum.",
    products: { "the-letter": ["The letter, a year", 2400] },
  },
};

/** The networks: which parameter carries the label, and which shops they have. */
export const NETWORKS = {
  "go.saltmarsh-partners.localhost": {
    name: "Saltmarsh Partners",
    label: "sub",
    shops: ["harbour-optics", "starling-eyepieces", "almanac-house", "dew-and-felt", "kettle-moor"],
  },
  "hop.gannet-row.localhost": {
    name: "Gannet Row",
    label: "label",
    shops: ["quiet-mount", "fernhill-cabins", "north-window", "owl-post"],
  },
} as const;
export type NetworkHost = keyof typeof NETWORKS;

/** The columns of the networks' reports: a row is a sale, or the clicks of a day. */
export const REPORT_COLUMNS = [
  "order_id",
  "type",
  "date",
  "program",
  "sub_id",
  "sale_amount",
  "commission",
  "currency",
  "status",
  "clicks",
];
