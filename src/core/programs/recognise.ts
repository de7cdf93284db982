import { hostOf, plainHost } from "../address/classify.ts";
import { splitAt, type LinkTerms } from "./build-link.ts";
import { decoded } from "../text/decoded.ts";
import { parseUrl, type ParsedUrl } from "./parsed-url.ts";
import type { LinkTemplate, Piece, Placeholder } from "./template.ts";

/** What recognising needs of a program; without a template only its domains are known. */
export type Recognisable = Omit<LinkTerms, "template" | "subIdLimit"> & {
  template: LinkTemplate | undefined;
};

/** What is known of an address that leads to a program. */
export interface Recognition<P> {
  readonly program: P;
  /** With our tracking ID, with somebody else's, or with none. */
  readonly tracking: "ours" | "foreign" | "none";
  readonly trackingId: string | null;
  readonly subId: string | null;
  /** The page itself, without tracking; null when the link names none. Read from the address when it is asked for. */
  readonly destination: string | null;
}

/** Says of any address which program it leads to. */
export type Recogniser<P> = (address: string) => Recognition<P> | undefined;

/**
 * Makes ready for recognising: an address costs one look-up by host, and one by the literal parts of the templates on
 * it, however many programs share a network's host. Programs earlier in the list are preferred where two own a domain.
 */
export function recogniser<P extends Recognisable>(programs: readonly P[]): Recogniser<P> {
  const around = new Map<string, Shape<P>[]>();
  const aroundNames = new Set<string>();
  const exact = new Map<string, P[]>();
  const below = new Map<string, P[]>();
  for (const program of programs) {
    const { template } = program;
    if (template?.style === "wrapper") {
      addShape(around, template, program);
      aroundNames.add(template.host.replace(/:\d+$/, ""));
    }
    for (const domain of program.domains) {
      const [known, name] = domain.startsWith("*.") ? [below, domain.slice(2)] : [exact, domain];
      const there = known.get(name);
      if (there) there.push(program);
      else known.set(name, [program]);
    }
  }
  const placeOf = (host: string): Place<P> => {
    let owners = exact.get(host);
    for (let dot = host.indexOf("."); dot !== -1; dot = host.indexOf(".", dot + 1)) {
      const more = below.get(host.slice(dot + 1));
      if (more) owners = owners ? [...owners, ...more] : more;
    }
    return { isNetwork: aroundNames.has(host), owners };
  };
  // Taking an address apart is the dearest part (`npm run bench -- programs`): most are told by their host alone, and
  // a site's links lead to the same hosts again and again.
  const seen = new Map<string, Place<P>>();
  return (address) => {
    const start = address.indexOf("//") + 2;
    const slash = address.indexOf("/", start);
    const written = slash === -1 ? undefined : address.slice(start, slash);
    let place = written === undefined ? undefined : seen.get(written);
    if (!place || !SCHEME.test(address)) {
      const host = webHost(address);
      if (host === undefined) return undefined;
      place = placeOf(host);
      if (host === written && seen.size < MAX_SEEN) seen.set(host, place);
    }
    if (place.isNetwork) {
      const apart = parseUrl(address);
      const shapes = around.get(apart.host);
      const found = shapes && recogniseAround(shapes, apart, address);
      if (found) return found;
    }
    return place.owners && recogniseOnto(place.owners, address);
  };
}

/** What is known of a host. */
interface Place<P> {
  /** Templates lead there. */
  isNetwork: boolean;
  owners: readonly P[] | undefined;
}
const MAX_SEEN = 50_000;
const SCHEME = /^https?:\/\//;

function webHost(address: string): string | undefined {
  const plain = plainHost(address);
  if (plain !== undefined) return plain;
  if (!/^https?:\/\//i.test(address)) return undefined;
  try {
    return hostOf(address);
  } catch {
    return undefined;
  }
}

/** Templates of one host that differ only in their literal parts. */
interface Shape<P> {
  segments: number;
  literalSegments: readonly number[];
  literalParameters: readonly string[];
  byLiterals: Map<string, { template: Wrapper; program: P }[]>;
}
type Wrapper = Extract<LinkTemplate, { style: "wrapper" }>;

const JOINT = "\n";

function addShape<P>(shapes: Map<string, Shape<P>[]>, template: Wrapper, program: P): void {
  const literalSegments = template.path.flatMap((piece, at) => (typeof piece === "string" ? [at] : []));
  const literal = template.parameters.filter(([, piece]) => typeof piece === "string");
  const literalParameters = literal.map(([name]) => name).sort();
  const here = shapes.get(template.host) ?? [];
  if (here.length === 0) shapes.set(template.host, here);
  let shape = here.find(
    (one) =>
      one.segments === template.path.length &&
      one.literalSegments.join() === literalSegments.join() &&
      one.literalParameters.join(JOINT) === literalParameters.join(JOINT),
  );
  if (!shape) {
    shape = { segments: template.path.length, literalSegments, literalParameters, byLiterals: new Map() };
    here.push(shape);
  }
  const literals = new Map(literal as [string, string][]);
  const key = [
    ...literalSegments.map((at) => template.path[at] as string),
    ...literalParameters.map((name) => literals.get(name)!),
  ].join(JOINT);
  const there = shape.byLiterals.get(key);
  if (there) there.push({ template, program });
  else shape.byLiterals.set(key, [{ template, program }]);
}

function recogniseAround<P extends Recognisable>(
  shapes: readonly Shape<P>[],
  apart: ParsedUrl,
  address: string,
): Recognition<P> | undefined {
  const { segments } = apart;
  let foreign: Recognition<P> | undefined;
  for (const shape of shapes) {
    if (shape.segments !== segments.length) continue;
    const literals = [
      ...shape.literalSegments.map((at) => decoded(segments[at]!)),
      ...shape.literalParameters.map((name) => apart.parameter(name) ?? ""),
    ];
    for (const { template, program } of shape.byLiterals.get(literals.join(JOINT)) ?? []) {
      const held = heldByWrapper(template, apart);
      if (held?.id === undefined) continue;
      const found = new Found(program, held, template, apart, address);
      if (found.tracking === "ours") return found;
      foreign ??= found;
    }
  }
  return foreign;
}

type Held = Partial<Record<Placeholder, string>>;

function heldByWrapper(template: Wrapper, apart: ParsedUrl): Held | undefined {
  const held: Held = {};
  for (const [at, piece] of template.path.entries())
    if (typeof piece !== "string" && !takeSegment(held, piece, decoded(apart.segments[at]!)))
      return undefined;
  takeParameters(held, template, apart, OURS);
  return held;
}

// The destination is the longest of them, and the one that is seldom asked for.
const OURS: readonly Placeholder[] = ["id", "sub"];
const DESTINATION: readonly Placeholder[] = ["destination"];

// A parameter that is missing holds nothing; what it would have held is then not known.
function takeParameters(
  held: Held,
  template: LinkTemplate,
  apart: ParsedUrl,
  wanted: readonly Placeholder[],
): void {
  for (const [name, piece] of template.parameters) {
    if (typeof piece === "string" || !wanted.includes(piece.holds)) continue;
    const value = apart.parameter(name);
    if (value !== null) take(held, piece, value);
  }
}

// A link without a label has nothing in its place.
function takeSegment(held: Held, piece: Exclude<Piece, string>, value: string): boolean {
  return take(held, piece, value) || (piece.holds === "sub" && value === piece.before + piece.after);
}

function take(held: Held, piece: Exclude<Piece, string>, value: string): boolean {
  const { before, holds, after } = piece;
  if (value.length < before.length + after.length || !value.startsWith(before) || !value.endsWith(after))
    return false;
  const inside = value.slice(before.length, value.length - after.length);
  if (inside === "") return false;
  held[holds] = inside;
  return true;
}

class Found<P extends Recognisable> implements Recognition<P> {
  readonly program: P;
  readonly tracking: "ours" | "foreign";
  readonly trackingId: string;
  readonly subId: string | null;
  private readonly held: Held;
  private readonly template: LinkTemplate;
  private readonly apart: ParsedUrl;
  private readonly address: string;

  /** `held` has the tracking ID. */
  constructor(program: P, held: Held, template: LinkTemplate, apart: ParsedUrl, address: string) {
    this.program = program;
    this.trackingId = held.id!;
    this.tracking = held.id === program.trackingId ? "ours" : "foreign";
    this.subId = held.sub ?? null;
    this.held = held;
    this.template = template;
    this.apart = apart;
    this.address = address;
  }

  get destination(): string | null {
    if (this.template.style === "parameters") return withoutParameters(this.address, this.template);
    const held = { ...this.held };
    takeParameters(held, this.template, this.apart, DESTINATION);
    return held.destination ?? null;
  }
}

function recogniseOnto<P extends Recognisable>(owners: readonly P[], address: string): Recognition<P> {
  const apart = address.includes("?") ? parseUrl(address) : undefined;
  let foreign: Recognition<P> | undefined;
  for (const program of owners) {
    const { template } = program;
    if (template?.style !== "parameters" || !apart) continue;
    const held: Held = {};
    takeParameters(held, template, apart, OURS);
    if (held.id === undefined) continue;
    const found = new Found(program, held, template, apart, address);
    if (found.tracking === "ours") return found;
    foreign ??= found;
  }
  return (
    foreign ?? { program: owners[0]!, tracking: "none", trackingId: null, subId: null, destination: address }
  );
}

// Takes the program's parameters out and leaves every other sign of the address as it was.
function withoutParameters(address: string, template: LinkTemplate): string {
  const [whole, fragment] = splitAt(address, "#");
  const [path, query] = splitAt(whole, "?");
  const own = new Set(template.parameters.map(([name]) => name));
  const kept = query
    .slice(1)
    .split("&")
    .filter((part) => !own.has(decoded(splitAt(part, "=")[0])));
  return `${path}${query === "" || kept.length === 0 ? "" : `?${kept.join("&")}`}${fragment}`;
}
