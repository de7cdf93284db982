import { SaxesParser, type SaxesTagNS } from "saxes";

const SVG = "http://www.w3.org/2000/svg";
const XLINK = "http://www.w3.org/1999/xlink";
const XML = "http://www.w3.org/XML/1998/namespace";
const XMLNS = "http://www.w3.org/2000/xmlns/";
/** What drawing programs write for themselves, and no browser draws. */
const OTHERS: ReadonlySet<string> = new Set([
  "http://www.w3.org/1999/02/22-rdf-syntax-ns#",
  "http://purl.org/dc/elements/1.1/",
  "http://creativecommons.org/ns#",
  "http://web.resource.org/cc/",
  "http://www.inkscape.org/namespaces/inkscape",
  "http://sodipodi.sourceforge.net/DTD/sodipodi-0.dtd",
]);
const ELEMENTS: ReadonlySet<string> = new Set(
  "svg g path rect circle ellipse line polyline polygon text tspan textPath defs linearGradient radialGradient stop clipPath mask pattern symbol use title desc switch filter feGaussianBlur feOffset feBlend feColorMatrix feComponentTransfer feFuncR feFuncG feFuncB feFuncA feComposite feDropShadow feFlood feMerge feMergeNode feMorphology feTile feTurbulence marker style metadata".split(
    " ",
  ),
);
const ATTRIBUTES: ReadonlySet<string> = new Set(
  `accent-height alignment-baseline amplitude azimuth baseFrequency baseline-shift class clip clip-path clip-rule clipPathUnits color
   color-interpolation color-interpolation-filters color-rendering cursor cx cy d direction display dominant-baseline dx dy
   edgeMode elevation enable-background exponent fill fill-opacity fill-rule filter filterUnits flood-color flood-opacity font font-family font-size
   font-size-adjust font-stretch font-style font-variant font-weight fr fx fy gradientTransform gradientUnits height href id image-rendering in in2
   intercept isolation k1 k2 k3 k4 kerning lang lengthAdjust letter-spacing marker marker-end marker-mid marker-start markerHeight markerUnits
   markerWidth mask mask-type maskContentUnits maskUnits media mix-blend-mode mode numOctaves offset opacity operator order orient overflow paint-order
   pathLength patternContentUnits patternTransform patternUnits pointer-events points preserveAlpha preserveAspectRatio primitiveUnits r radius
   refX refY result role rotate rx ry scale seed shape-rendering side slope spacing spreadMethod startOffset stdDeviation stitchTiles stop-color
   stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-opacity stroke-width style
   systemLanguage tableValues text-anchor text-decoration text-rendering textLength transform transform-origin type unicode-bidi values
   vector-effect version viewBox visibility width word-spacing writing-mode x x1 x2 xChannelSelector y y1 y2 yChannelSelector`
    .split(/\s+/)
    .filter(Boolean),
);
const OWN_OR_PICTURE = /^\s*(?:#|data:image\/(?:png|jpeg|gif|webp)[;,])/i;

/** True for text that is an XML document whose root is called `svg`, with or without a prefix. Linear. */
export function isVectorPicture(text: string): boolean {
  let rest = text.replace(/^\uFEFF/, "").trimStart();
  for (let passed = 0; passed < 50; passed += 1) {
    const end = rest.startsWith("<?")
      ? "?>"
      : rest.startsWith("<!--")
        ? "-->"
        : /^<!doctype/i.test(rest)
          ? ">"
          : undefined;
    if (end === undefined) return /^<(?:[\w-]{1,40}:)?svg[\s/>]/i.test(rest);
    // A document type with a subset of its own ends behind that.
    const subset = end === ">" && rest.slice(0, rest.indexOf(">") + 1).includes("[") ? "]" : "";
    const at = rest.indexOf(end, subset === "" ? 2 : Math.max(0, rest.indexOf(subset)));
    if (at === -1) return false;
    rest = rest.slice(at + end.length).trimStart();
  }
  return false;
}

/**
 * What an SVG document holds that could do more than be looked at; undefined for one that can only be looked at. It is
 * read as browsers read it, as XML with namespaces: only known elements, attributes and styles pass.
 */
export function vectorFault(text: string): string | undefined {
  let inStyle = 0;
  let depth = 0;
  let styles = "";
  const parser = new SaxesParser({ xmlns: true });
  parser.on("error", (error) => {
    throw new Fault(`something that is no XML (${error.message.slice(0, 120)})`);
  });
  parser.on("doctype", (doctype) => {
    if (doctype.includes("[")) throw new Fault("an entity declaration");
  });
  parser.on("processinginstruction", ({ target }) => {
    throw new Fault(`the processing instruction <?${target}?>`);
  });
  parser.on("opentag", (tag) => {
    // A prefix is looked up in everything around it: that has to end somewhere.
    if ((depth += 1) > MAX_DEEP) throw new Fault(`more than ${MAX_DEEP} elements inside one another`);
    const fault = tagFault(tag);
    if (fault) throw new Fault(fault);
    if (tag.uri === SVG && tag.local === "style") inStyle += 1;
  });
  parser.on("closetag", (tag) => {
    depth -= 1;
    if (tag.uri === SVG && tag.local === "style") inStyle -= 1;
  });
  const take = (words: string): void => {
    if (inStyle > 0) styles += words;
  };
  parser.on("text", take);
  parser.on("cdata", take);
  try {
    parser.write(text.replace(/^\uFEFF/, "")).close();
  } catch (error) {
    if (error instanceof Fault) return error.message;
    throw error;
  }
  return styleFault(styles);
}

const MAX_DEEP = 100;

/** Ends the reading: nothing behind the first fault is looked at. */
class Fault extends Error {}

function tagFault(tag: SaxesTagNS): string | undefined {
  const isOwn = tag.uri === SVG;
  if (isOwn ? !ELEMENTS.has(tag.local) : !OTHERS.has(tag.uri)) return `the element <${tag.name}>`;
  for (const { uri, local, name, value } of Object.values(tag.attributes)) {
    if (uri === XMLNS || OTHERS.has(uri)) continue;
    if (/^on/i.test(local)) return `the event handler ${name}`;
    if (local === "href" && (uri === "" || uri === XLINK)) {
      if (!OWN_OR_PICTURE.test(value)) return `the address “${value.slice(0, 60)}”`;
      continue;
    }
    if (uri === XLINK || (uri === XML && (local === "space" || local === "lang"))) continue;
    if (uri !== "") return `the attribute ${name}`;
    if (isOwn && !ATTRIBUTES.has(local) && !/^(?:data|aria)-[\w-]+$/.test(local))
      return `the attribute ${name}`;
    const inValue = styleFault(value);
    if (inValue) return `the value of ${name}`;
    if (/(?:javascript|vbscript):/i.test(value.replace(/\s+/g, ""))) return `the value of ${name}`;
  }
  return undefined;
}

/** What a style could fetch, its escapes (CSS Syntax section 4.3.7) and comments taken away first. */
function styleFault(css: string): string | undefined {
  if (css === "") return undefined;
  const plain = unescaped(withoutComments(css)).replace(/\s+/g, " ").toLowerCase();
  const rule = /@(?!media\b|supports\b)[\w-]*/.exec(plain)?.[0];
  if (rule !== undefined) return `the style rule ${rule}, which fetches from elsewhere`;
  return /url\( ?["']? ?[^\s"'#]|(?:image-set|image|src|expression|element)\(/.test(plain)
    ? "a style that fetches from elsewhere"
    : undefined;
}

function unescaped(css: string): string {
  return css.replace(
    /\\(?:([\da-f]{1,6})\s?|([^\n]))/gi,
    (_, code: string | undefined, sign: string | undefined) => {
      const point = Number.parseInt(code ?? "0", 16);
      return sign ?? (point > 0 && point <= 0x10ffff ? String.fromCodePoint(point) : "\uFFFD");
    },
  );
}

// A comment splits a word for people and joins nothing for a browser: it counts as a space.
function withoutComments(css: string): string {
  const pieces: string[] = [];
  let from = 0;
  for (let at = css.indexOf("/*"); at !== -1; at = css.indexOf("/*", from)) {
    pieces.push(css.slice(from, at), " ");
    const end = css.indexOf("*/", at + 2);
    if (end === -1) return pieces.join("");
    from = end + 2;
  }
  pieces.push(css.slice(from));
  return pieces.join("");
}
