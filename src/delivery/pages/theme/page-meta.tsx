import { decodeHTML } from "entities/decode";
import type { PublishedPage } from "../../../store/ground/models.ts";
import type { SiteFrame } from "./site-document.tsx";

/** A published page with its first day. */
export type ToldPage = PublishedPage & { publishedAt?: Date | null };

/**
 * What search engines and those who pass an address on are told of a page: its canonical address (RFC 6596), the Open
 * Graph properties, and an article as schema.org describes it. `address` is the one under which readers find it.
 */
export function PageMeta(props: {
  frame: SiteFrame;
  page: ToldPage;
  html: string;
  address: string;
  cardOf: (src: string) => string | undefined;
}) {
  const { frame, page, html, address, cardOf } = props;
  const { canonical, picture: chosen, title, language = frame.language } = page.search ?? {};
  const source = chosen ?? firstPicture(html);
  const picture = source === undefined ? undefined : pictureAt(cardOf(source) ?? source, address);
  const isArticle = page.path !== "/";
  const properties = {
    "og:title": title || page.title,
    "og:description": page.description,
    "og:type": isArticle ? "article" : "website",
    "og:url": address,
    "og:site_name": frame.siteName,
    "og:locale": language.replace("-", "_"),
    "og:image": picture ?? "",
  };
  return (
    <>
      <link rel="canonical" href={canonical === undefined ? address : new URL(canonical, address).href} />
      {Object.entries(properties).map(([property, content]) =>
        content === "" ? null : <meta key={property} property={property} content={content} />,
      )}
      {isArticle ? (
        <script
          type="application/ld+json"
          dangerouslySetInnerHTML={{ __html: asScript(article(frame, page, picture, address)) }}
        />
      ) : null}
    </>
  );
}

// An article of schema.org, with what is known of it and nothing that is made up.
function article(frame: SiteFrame, page: ToldPage, picture: string | undefined, address: string): object {
  const publisher = { "@type": "Organization", name: frame.siteName };
  return {
    "@context": "https://schema.org",
    "@type": "Article",
    headline: page.title,
    ...(page.description ? { description: page.description } : {}),
    ...(page.category ? { articleSection: page.category } : {}),
    ...(picture ? { image: picture } : {}),
    ...(page.publishedAt ? { datePublished: page.publishedAt.toISOString() } : {}),
    ...(page.at ? { dateModified: page.at } : {}),
    inLanguage: page.search?.language ?? frame.language,
    mainEntityOfPage: address,
    author: publisher,
    publisher,
  };
}

// JSON inside of a script element: nothing in it may end the element (HTML Standard, section 4.12.1.3).
function asScript(data: object): string {
  return JSON.stringify(data).replaceAll("<", "\\u003c");
}

/** Where the first picture in a delivered body comes from. */
function firstPicture(html: string): string | undefined {
  const source = /<img\b[^>]*?\ssrc="([^"]*)"/.exec(html)?.[1];
  return source && decodeHTML(source);
}

/** A whole address that others could fetch; undefined where it is none. */
function pictureAt(source: string, address: string): string | undefined {
  const picture = URL.canParse(source, address) ? new URL(source, address) : undefined;
  return picture && /^https?:$/.test(picture.protocol) ? picture.href : undefined;
}
