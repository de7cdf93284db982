import { Node } from "@tiptap/core";
import { admitted } from "../../address/gate.ts";

/** How wide a picture stands in the text, and on which side. */
export const PICTURE_WIDTHS = ["small", "medium", "large", "full"] as const;
export const PICTURE_SIDES = ["left", "center", "right"] as const;
export type PictureWidth = (typeof PICTURE_WIDTHS)[number];
export type PictureSide = (typeof PICTURE_SIDES)[number];

/** The attributes of a picture's link, with the names they have on an `<a>`. */
export const LINK_ATTRIBUTES = {
  href: "href",
  linkTitle: "title",
  rel: "rel",
  target: "target",
  download: "download",
  override: "data-override",
  creative: "data-creative",
} as const;
/** The attributes of the picture itself, with the names they have on an `<img>`. */
export const IMAGE_ATTRIBUTES = {
  src: "src",
  alt: "alt",
  title: "title",
  pixelWidth: "width",
  pixelHeight: "height",
} as const;

type Attributes = Record<string, string | null>;

/**
 * A picture with its caption: `<figure><a><img></a><figcaption>`. The link is the picture's own attribute and
 * not a mark, so that caption and picture may lead to different places. A bare `<img>`, linked or not, is read
 * as one too.
 */
export const Picture = Node.create({
  name: "image",
  group: "block",
  content: "inline*",
  draggable: true,
  isolating: true,

  addAttributes() {
    const names = [...Object.keys(IMAGE_ATTRIBUTES), ...Object.keys(LINK_ATTRIBUTES), "width", "align"];
    return Object.fromEntries(
      names.map((name) => [name, { default: null as string | null, rendered: false }]),
    );
  },

  parseHTML: () => [
    {
      tag: "figure",
      getAttrs: (figure) => {
        const image = figure.querySelector("img[src]");
        return image && isAdmitted(image)
          ? { ...pictureAttributes(image), ...frameAttributes(figure) }
          : false;
      },
      contentElement: (figure) =>
        (figure as HTMLElement).querySelector<HTMLElement>("figcaption") ?? nothing(figure as HTMLElement),
    },
    {
      tag: "img[src]",
      getAttrs: (image) => isAdmitted(image) && pictureAttributes(image),
      contentElement: (image) => nothing(image as HTMLElement),
    },
  ],

  renderHTML({ node }) {
    const attributes = node.attrs as Attributes;
    const image = ["img", pick(attributes, IMAGE_ATTRIBUTES)] as const;
    const picture = attributes.href ? (["a", pick(attributes, LINK_ATTRIBUTES), image] as const) : image;
    const frame = pick(attributes, { width: "data-width", align: "data-align" });
    return ["figure", frame, picture, ["figcaption", 0]];
  },
});

/** True for an empty element that a written body leaves out: a caption without words. */
export const isOptionalWhenEmpty = (name: string): boolean => name === "figcaption";

// What would not be stored is not taken into the text either.
function isAdmitted(image: Element): boolean {
  return admitted(image.getAttribute("src"), "picture") !== undefined;
}

function pictureAttributes(image: Element): Attributes {
  const around = image.closest("a[href]");
  const link = around && admitted(around.getAttribute("href"), "link") !== undefined ? around : null;
  return {
    ...read(image, IMAGE_ATTRIBUTES),
    alt: image.getAttribute("alt") ?? "",
    ...(link ? read(link, LINK_ATTRIBUTES) : {}),
  };
}

function frameAttributes(figure: Element): Attributes {
  const width = figure.getAttribute("data-width");
  const align = figure.getAttribute("data-align");
  return {
    width: PICTURE_WIDTHS.includes(width as PictureWidth) ? width : null,
    align: PICTURE_SIDES.includes(align as PictureSide) ? align : null,
  };
}

function read(element: Element, names: Readonly<Record<string, string>>): Attributes {
  return Object.fromEntries(
    Object.entries(names).map(([name, attribute]) => [name, element.getAttribute(attribute)]),
  );
}

function pick(attributes: Attributes, names: Readonly<Record<string, string>>): Record<string, string> {
  return Object.fromEntries(
    Object.entries(names).flatMap(([name, attribute]) => {
      const value = attributes[name];
      return value === null || value === undefined ? [] : [[attribute, value]];
    }),
  );
}

function nothing(beside: HTMLElement): HTMLElement {
  return beside.ownerDocument.createElement("span");
}
