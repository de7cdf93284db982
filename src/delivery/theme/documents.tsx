import { renderToStaticMarkup } from "react-dom/server";
import type { PublishedPage } from "../../store/models.ts";
import type { Candidate } from "../../core/routes/closest.ts";
import { SiteDocument, type SiteFrame } from "./site-document.tsx";

const DOCTYPE = "<!doctype html>";

/** A published page as a whole document; `html` is its delivered body, rules applied. */
export function pageDocument(frame: SiteFrame, page: PublishedPage, html: string): string {
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument frame={frame} title={page.title} description={page.description} current={page.path}>
        <article>
          {page.category ? <p className="category">{page.category}</p> : null}
          <h1>{page.title}</h1>
          {page.description ? <p className="lead">{page.description}</p> : null}
          <div className="body" dangerouslySetInnerHTML={{ __html: html }} />
        </article>
      </SiteDocument>,
    )
  );
}

/** The answer to an address that nothing answers, with what may have been meant. */
export function notFoundDocument(
  frame: SiteFrame,
  address: string,
  candidates: readonly Candidate[],
): string {
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument frame={frame} title="Nothing here" noindex>
        <article>
          <p className="category">Not found</p>
          <h1>There is nothing under this address</h1>
          <p className="lead">
            You asked for <code>{address}</code>. It may have been mistyped, or what stood here has moved.
          </p>
          {candidates.length > 0 ? (
            <>
              <h2>Did you mean</h2>
              <ul className="candidates">
                {candidates.map((candidate) => (
                  <li key={candidate.address}>
                    <a href={candidate.address}>{candidate.title || candidate.address}</a>
                    <span>{candidate.address}</span>
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          <p>
            Or start at the <a href={frame.home}>front page of {frame.siteName}</a>.
          </p>
        </article>
      </SiteDocument>,
    )
  );
}

/** The answer under an address that was taken away for good (RFC 9110 section 15.5.11). */
export function goneDocument(frame: SiteFrame, address: string): string {
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument frame={frame} title="Taken away" noindex>
        <article>
          <p className="category">Gone</p>
          <h1>What stood here was taken away</h1>
          <p className="lead">
            <code>{address}</code> has no successor.
          </p>
          <p>
            Start at the <a href={frame.home}>front page of {frame.siteName}</a>.
          </p>
        </article>
      </SiteDocument>,
    )
  );
}
