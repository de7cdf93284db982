import { useQuery } from "@tanstack/react-query";
import { looksLikeAddress } from "../../../../core/address/repair/repair.ts";
import { fillAddress } from "../../../../core/text/variables.ts";
import type { DestinationKind } from "../../../../core/address/classify.ts";
import type { HeadingAnchor } from "../../../../core/pages/body/headings.ts";
import type { SiteFile } from "../../../../core/files/file.ts";
import type { Route } from "../../../../core/routes/route.ts";
import type { Site } from "../../../../core/sites/site.ts";
import { useDebounced } from "../../../../ui/keys/use-debounced.ts";
import { asking } from "../../../../ui/client/queries.ts";
import * as say from "../../words.ts";

/** Something that the typed words, or the pasted address, may be meant for. */
export interface Destination {
  kind: DestinationKind;
  title: string;
  address: string;
  /** What should be known before it is taken: a draft, the short link of the pasted address. */
  note: string;
}

/**
 * What a link could lead to: for words, pages, short links, files and this page's headings that hold them; for an
 * address that has a short link already, that one.
 */
export function useDestinations(
  site: Site,
  text: string,
  headings: readonly HeadingAnchor[],
): { found: readonly Destination[]; asked: boolean } {
  const typed = useDebounced(text.trim(), 150);
  const isWords = typed.length > 1 && !looksLikeAddress(typed) && !typed.startsWith("#");
  const answer = useQuery({
    ...asking("POST /sites/:site/paste", {
      site: site.id,
      body: { text: fillAddress(typed, site.variables) },
    }),
    enabled: typed.length > 1 && !typed.startsWith("#"),
    staleTime: 5_000,
  }).data;
  const wanted = typed.replace(/^#/, "").toLowerCase();
  const here = headings
    .filter(
      ({ id, words }) =>
        (typed.startsWith("#") && `#${id}` !== typed && id.includes(wanted)) ||
        (isWords && words.toLowerCase().includes(wanted)),
    )
    .map(({ id, words }): Destination => ({ kind: "heading", title: words, address: `#${id}`, note: "" }));
  // A file's name looks like a host.
  const isName = /^[^/\s:@]+\.[a-z0-9]{2,5}$/i.test(typed);
  const named = useQuery({
    ...asking("GET /sites/:site/files", { site: site.id, query: { limit: 6, q: typed } }),
    enabled: isName,
    staleTime: 5_000,
  }).data;
  const namedFiles = (isName ? (named?.items ?? []) : []).map(asDestination);
  if (!answer) return { found: [...here, ...namedFiles], asked: false };
  if (!isWords) {
    const short = answer.shortLinks
      .filter(({ enabled }) => enabled)
      .map((route) => shortLink(route, say.itsShortLink));
    return { found: [...short, ...here, ...namedFiles], asked: true };
  }
  const pages = answer.pages.map((page): Destination => ({
    kind: "page",
    title: page.title,
    address: page.path,
    note: page.status === "draft" ? "draft" : "",
  }));
  const routes = answer.routes.filter(({ kind }) => kind === "short").map((route) => shortLink(route, ""));
  const files = answer.files.map(asDestination);
  // What is called so comes before what only speaks of it.
  const isCalled = ({ title, address }: Destination): boolean =>
    `${title} ${address}`.toLowerCase().includes(typed.toLowerCase());
  const all = [...pages, ...routes, ...here, ...files];
  return { found: [...all.filter(isCalled), ...all.filter((one) => !isCalled(one))], asked: true };
}

function shortLink({ title, address, host, url }: Route, note: string): Destination {
  return { kind: "route", title: title || address, address: host ? url : address, note };
}

function asDestination({ name, path }: SiteFile): Destination {
  return { kind: "file", title: name, address: path, note: "" };
}
