/** A page of Saltmarsh Notes, before the frame around it. */
export interface NotesPage {
  title: string;
  /** Its text. */
  text: string;
  /** More for its head. */
  head?: string;
  /** Which of the site's three looks it has: today's, the one before, or the one of the first years. */
  look?: "now" | "before" | "first";
}

const MENU: readonly (readonly [path: string, words: string])[] = [
  ["/", "Saltmarsh Notes"],
  ["/notes/", "Notes"],
  ["/walks/", "Walks"],
  ["/birds/", "Birds"],
  ["/things/", "Things we use"],
  ["/about", "About"],
];

/** The whole document of a page in the look that it has. `recent` are links to what was written last. */
export function framed(path: string, page: NotesPage, recent: string, partner: string): string {
  const head = `<meta charset="${page.look === "first" ? "windows-1252" : "utf-8"}"><title>${page.title} | Saltmarsh Notes</title>${page.head ?? ""}`;
  switch (page.look ?? "now") {
    case "now":
      return `<!doctype html>
<html lang="en"><head>${head}<link rel="alternate" type="application/rss+xml" href="/feed.xml"><link rel="stylesheet" href="/look.css"></head>
<body class="notes"><header><p class="name"><a href="/">Saltmarsh Notes</a></p><nav aria-label="Main"><ul>${menu(path)}</ul></nav></header>
<main id="content"><article><h1>${page.title}</h1>
${page.text}
</article></main>
<aside><h2>Written last</h2><ul>${recent}</ul><h2>We lean on</h2><p><a href="${partner}" target="_blank">Harbour Optics</a> for glass, and say so.</p></aside>
<footer><p>© Saltmarsh Notes. <a href="/imprint">Imprint</a> · <a href="http://forum.starry-neighbours.example/marsh">The neighbours' forum</a></p></footer></body></html>
`;
    case "before":
      return `<!DOCTYPE html>
<html lang="en"><head>${head}</head><body><div class="wrap"><div id="top"><div class="name"><a href="/">Saltmarsh Notes</a></div><div class="menu">${menuOfDivs(path)}</div></div>
<div class="columns"><div class="main"><h1>${page.title}</h1>
${page.text}
</div><div class="box">We lean on <a href="${partner}" target="_blank">Harbour Optics</a>.</div></div><div class="bottom"><a href="/imprint">Imprint</a></div></div></body></html>
`;
    case "first":
      return `<html><head>${head}</head><body bgcolor="#ffffff"><table width="700"><tr><td><font size="5">Saltmarsh Notes</font></td></tr>
<tr><td><a href="/">Start</a> | <a href="/archive/">Archive</a> | <a href="/guest.html">Guest book</a></td></tr>
<tr><td><h2>${page.title}</h2>${page.text}</td></tr><tr><td>Best seen at 800 × 600. <a href="/imprint">Imprint</a></td></tr></table></body></html>
`;
  }
}

// The page that one is on is no link in its own menu, as usual.
function menu(path: string): string {
  return MENU.slice(1)
    .map(([to, words]) =>
      to === path ? `<li aria-current="page">${words}</li>` : `<li><a href="${to}">${words}</a></li>`,
    )
    .join("");
}

function menuOfDivs(path: string): string {
  return MENU.slice(1)
    .map(
      ([to, words]) =>
        `<div class="${path.startsWith(to) ? "on" : "entry"}"><a href="${to}">${words}</a></div>`,
    )
    .join("");
}
