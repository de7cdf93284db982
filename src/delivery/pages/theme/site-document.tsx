import type { ReactNode } from "react";
import { directionOf } from "../../../core/sites/locale.ts";

/** What every delivered document of a site shows around its content. */
export interface SiteFrame {
  siteName: string;
  tagline: string;
  home: string;
  /** Language of the site's own texts (BCP 47). */
  language: string;
  /** Path of its icon. */
  icon: string;
  /** Path of the icon that phones put on their first screen; absent where the site has none of its own. */
  touchIcon?: string | undefined;
  /** Paths of the feeds that are told of in every page, by what each is called. */
  feeds: readonly { name: string; path: string }[];
  navigation: FrameLink[];
  /** Delivered HTML of the shared blocks. */
  footer: string[];
  sidebar: string[];
  /** Address that relative ones are meant from, when the document is shown somewhere else. */
  base?: string;
}

/** An entry of the navigation with what readers get; a heading without a landing page has no address. */
export interface FrameLink {
  label: string;
  href: string | null;
  /** Path of the page it leads to, by which the current one is known. */
  path: string | null;
  rel: string;
  target: string | null;
  children: FrameLink[];
}

/** A delivered document in the site's look. It is rendered once and then comes from memory; no script is sent. */
export function SiteDocument(props: {
  frame: SiteFrame;
  title: string;
  /** What search engines and tabs show; absent: the title, and whose it is. */
  searchTitle?: string | undefined;
  description?: string;
  noindex?: boolean;
  current?: string;
  /** Of the content; our own words are English. */
  language?: string;
  /** What else stands in the head. */
  head?: ReactNode;
  children: ReactNode;
}) {
  const { frame, title, searchTitle, description, noindex, current, language = "en", head, children } = props;
  return (
    <html lang={language} dir={directionOf(language) === "rtl" ? "rtl" : undefined}>
      <head>
        <meta charSet="utf-8" />
        {frame.base ? <base href={frame.base} /> : null}
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>{searchTitle ?? (title === frame.siteName ? title : `${title} · ${frame.siteName}`)}</title>
        {description ? <meta name="description" content={description} /> : null}
        {noindex ? <meta name="robots" content="noindex" /> : null}
        {head}
        <link rel="icon" href={frame.icon} />
        {frame.touchIcon ? <link rel="apple-touch-icon" href={frame.touchIcon} /> : null}
        {frame.feeds.map(({ name, path }) => (
          <link key={path} rel="alternate" type="application/atom+xml" title={name} href={path} />
        ))}
        <link
          rel="preload"
          href="/~theme/literata.woff2"
          as="font"
          type="font/woff2"
          crossOrigin="anonymous"
        />
        <link rel="stylesheet" href="/~theme/site.css" />
      </head>
      <body>
        <a className="skip" href="#content">
          To the text
        </a>
        <header className="masthead">
          <a className="name" href={frame.home}>
            {frame.siteName}
          </a>
          {frame.tagline ? <p className="tagline">{frame.tagline}</p> : null}
          <nav aria-label="Sections">
            <Entries entries={frame.navigation} current={current} />
          </nav>
        </header>
        <div className={frame.sidebar.length > 0 ? "beside" : undefined}>
          <main id="content">{children}</main>
          {frame.sidebar.length > 0 ? (
            <aside aria-label="Beside the text">
              <Blocks blocks={frame.sidebar} />
            </aside>
          ) : null}
        </div>
        <footer>
          <Blocks blocks={frame.footer} />
          <p>
            {frame.siteName}. {frame.tagline}
          </p>
        </footer>
      </body>
    </html>
  );
}

function Entries({ entries, current }: { entries: readonly FrameLink[]; current: string | undefined }) {
  return (
    <ul>
      {entries.map((entry, index) => (
        <li key={index}>
          {entry.href === null ? (
            <span>{entry.label}</span>
          ) : (
            <a
              href={entry.href}
              rel={entry.rel || undefined}
              target={entry.target ?? undefined}
              aria-current={entry.path !== null && entry.path === current ? "page" : undefined}
            >
              {entry.label}
            </a>
          )}
          {entry.children.length > 0 ? <Entries entries={entry.children} current={current} /> : null}
        </li>
      ))}
    </ul>
  );
}

function Blocks({ blocks }: { blocks: readonly string[] }) {
  return blocks.map((html, index) => (
    <div key={index} className="block" dangerouslySetInnerHTML={{ __html: html }} />
  ));
}
