import type { ReactNode } from "react";

/** What every delivered document of a site shows around its content. */
export interface SiteFrame {
  siteName: string;
  tagline: string;
  home: string;
  navigation: { path: string; title: string }[];
}

/** A delivered document in the site's look. It is rendered once and then comes from memory; no script is sent. */
export function SiteDocument(props: {
  frame: SiteFrame;
  title: string;
  description?: string;
  noindex?: boolean;
  current?: string;
  children: ReactNode;
}) {
  const { frame, title, description, noindex, current, children } = props;
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>{title === frame.siteName ? title : `${title} · ${frame.siteName}`}</title>
        {description ? <meta name="description" content={description} /> : null}
        {noindex ? <meta name="robots" content="noindex" /> : null}
        <link rel="icon" href="data:," />
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
            <ul>
              {frame.navigation.map((item) => (
                <li key={item.path}>
                  <a href={item.path} aria-current={item.path === current ? "page" : undefined}>
                    {item.title}
                  </a>
                </li>
              ))}
            </ul>
          </nav>
        </header>
        <main id="content">{children}</main>
        <footer>
          <p>
            {frame.siteName}. {frame.tagline}
          </p>
        </footer>
      </body>
    </html>
  );
}
