import { withPictureForms } from "../../core/files/picture-markup.ts";
import { pictureAt } from "./pictures.ts";
import { mayLeave } from "../../core/address/may-leave.ts";
import { deliverHtml } from "../../core/links/rewrite/deliver.ts";
import type { NavigationItem } from "../../core/navigation/navigation.ts";
import { feedPath } from "../../core/sites/machine-documents.ts";
import { linkAttributes } from "../../core/rules/resolve/link-attributes.ts";
import { appliesTo } from "../../core/rules/placement.ts";
import { fillAddress } from "../../core/text/variables.ts";
import { iconOf, pathOfPage, type SiteIndex } from "./site-index.ts";
import type { FrameLink, SiteFrame } from "../pages/theme/site-document.tsx";

/** What rules and placements look at in the page around a link. */
interface PageAround {
  id?: string;
  path: string;
  category: string;
}

/** What stands around a document of the site: navigation, and the shared blocks that belong on this page. */
export function frameOf(site: SiteIndex, home = "/", page?: PageAround): SiteFrame {
  const prefix = home.slice(0, -1);
  const icon = iconOf(site);
  const blocks = (place: "footer" | "sidebar"): string[] =>
    site.site.blocks
      .filter((block) => block.place === place && appliesTo(block, page))
      .map((block) =>
        withPictureForms(
          deliverPlaced(site, block.html, page, block.bound),
          (src) => pictureAt(site, src),
          true,
        ),
      );
  return {
    siteName: site.site.name,
    tagline: site.site.tagline,
    language: site.site.language,
    icon: prefix + (icon?.path ?? "/favicon.ico"),
    touchIcon: icon && `${prefix}/apple-touch-icon.png`,
    feeds: [null, ...(page?.category ? [page.category] : [])].map((category) => ({
      name: category === null ? site.site.name : `${site.site.name}: ${category}`,
      path: prefix + feedPath(category),
    })),
    home,
    navigation: site.site.navigation
      ? site.site.navigation.flatMap((item) => navigationLink(site, item, prefix, page))
      : [...site.pages.values()]
          .filter((one) => one.inNavigation)
          .map((one) => ({
            label: one.title,
            href: prefix + pathOfPage(site, one),
            path: one.path,
            rel: "",
            target: null,
            children: [],
          })),
    footer: blocks("footer"),
    sidebar: blocks("sidebar"),
  };
}

/** A stored fragment as readers get it on this page. */
export function deliverPlaced(
  site: SiteIndex,
  html: string,
  page: PageAround | undefined,
  bound: Readonly<Record<string, string>> = {},
): string {
  return deliverHtml(html, site.site.rules, site.links, {
    page: page?.path,
    category: page?.category,
    pageId: page?.id,
    bound,
    variables: site.site.variables,
  });
}

// An entry whose page is not published is left out, its children move up with it.
function navigationLink(
  site: SiteIndex,
  item: NavigationItem,
  prefix: string,
  page: PageAround | undefined,
): FrameLink[] {
  const children = item.children.flatMap((child) => navigationLink(site, child, prefix, page));
  const path = item.page === undefined ? undefined : site.paths.get(item.page);
  const address = item.page === undefined ? item.address : path && pathOfPage(site, { path });
  if (address === undefined) {
    return item.kind === "heading"
      ? [{ label: item.label, href: null, path: null, rel: "", target: null, children }]
      : children;
  }
  const href = fillAddress(address, site.site.variables);
  // The last gate: a variable may have made something else of it.
  if (!mayLeave(href))
    return [{ label: item.label, href: null, path: null, rel: "", target: null, children }];
  const { rel, target } = linkAttributes(
    { href, override: item.target && `target=${item.target}`, page: page?.path, category: page?.category },
    site.site.rules,
    site.links,
  );
  return [
    {
      label: item.label,
      href: href.startsWith("/") ? prefix + href : href,
      path: path ?? null,
      rel: rel.join(" "),
      target,
      children,
    },
  ];
}
