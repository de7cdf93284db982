import type { Frame } from "../../../core/origin/frame/frame.ts";
import { escapeUTF8 } from "entities/escape";
import { renderToStaticMarkup } from "react-dom/server";
import type { Notice } from "../../../core/routes/route.ts";
import type { Candidate } from "../../../core/misses/closest.ts";
import { PageMeta, type ToldPage } from "./page-meta.tsx";
import { SiteDocument, type SiteFrame } from "./site-document.tsx";

const DOCTYPE = "<!doctype html>";

/**
 * A published page as a whole document; `html` is its delivered body, rules applied, `address` the one under which
 * readers find it.
 */
export function pageDocument(
  frame: SiteFrame,
  page: ToldPage,
  html: string,
  address: string,
  /** The path of what previews show of a picture of ours. */
  cardOf: (src: string) => string | undefined,
  disclosure?: string,
): string {
  const search = page.search ?? {};
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument
        frame={frame}
        title={page.title}
        searchTitle={search.title || undefined}
        description={page.description}
        noindex={search.noindex ?? false}
        current={page.path}
        language={search.language ?? frame.language}
        head={<PageMeta frame={frame} page={page} html={html} address={address} cardOf={cardOf} />}
      >
        <PageContent page={page} html={html} disclosure={disclosure} />
      </SiteDocument>,
    )
  );
}

/** A page's own words, whatever stands around them. */
function PageContent(props: { page: ToldPage; html: string; disclosure: string | undefined }) {
  const { page, html, disclosure } = props;
  return (
    <article>
      {page.category ? <p className="category">{page.category}</p> : null}
      <h1>{page.title}</h1>
      {page.description ? <p className="lead">{page.description}</p> : null}
      {disclosure ? (
        <p className="disclosure" role="note">
          {disclosure}
        </p>
      ) : null}
      <div className="body" dangerouslySetInnerHTML={{ __html: html }} />
    </article>
  );
}

/** A page in the look of another, which stands elsewhere: what it says of itself in its head, and its words in its content area. */
export function framedDocument(
  around: Frame,
  frame: SiteFrame,
  page: ToldPage,
  html: string,
  address: string,
  cardOf: (src: string) => string | undefined,
  disclosure?: string,
): string {
  const { title, noindex = false } = page.search ?? {};
  const head = renderToStaticMarkup(
    <>
      <meta charSet="utf-8" />
      <title>{title || page.title}</title>
      {page.description ? <meta name="description" content={page.description} /> : null}
      {noindex ? <meta name="robots" content="noindex" /> : null}
      <PageMeta frame={frame} page={page} html={html} address={address} cardOf={cardOf} />
    </>,
  );
  const content = renderToStaticMarkup(<PageContent page={page} html={html} disclosure={disclosure} />);
  return around.before + head + around.between + content + around.after;
}

const ADDRESS_PLACE = "maprope-address-place";
const CANDIDATES_PLACE = "maprope-candidates-place";

/**
 * The answer to an address that nothing answers, with what may have been meant. All of it but the address and the
 * candidates is the same for every miss: it is rendered once, and each miss costs the filling in.
 */
export function notFoundTemplate(
  frame: SiteFrame,
): (address: string, candidates: readonly Candidate[]) => string {
  const whole =
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument
        frame={frame}
        title="Nothing here"
        description={`Nothing on ${frame.siteName} is found under this address.`}
        noindex
      >
        <article>
          <p className="category">Not found</p>
          <h1>There is nothing under this address</h1>
          <p className="lead">
            You asked for <code>{ADDRESS_PLACE}</code>. It may have been mistyped, or what stood here has
            moved.
          </p>
          {CANDIDATES_PLACE}
          <p>
            Or start at the <a href={frame.home}>front page of {frame.siteName}</a>.
          </p>
        </article>
      </SiteDocument>,
    );
  const [before, rest] = cut(whole, ADDRESS_PLACE);
  const [between, after] = cut(rest, CANDIDATES_PLACE);
  return (address, candidates) =>
    before + escapeUTF8(address) + between + (candidates.length > 0 ? didYouMean(candidates) : "") + after;
}

function cut(text: string, place: string): [string, string] {
  const at = text.indexOf(place);
  return [text.slice(0, at), text.slice(at + place.length)];
}

function didYouMean(candidates: readonly Candidate[]): string {
  return renderToStaticMarkup(
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
    </>,
  );
}

/**
 * A page that says that it goes on, where to, and when: without script, and for as long as one likes for a reader
 * who asks it to stay.
 */
export function noticeDocument(
  frame: SiteFrame,
  { to, rel }: { to: string; rel: string },
  notice: Notice,
  stays: boolean,
): string {
  const host = URL.canParse(to) ? new URL(to).host : frame.siteName;
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument
        frame={frame}
        title="You are being taken on"
        description={`${frame.siteName} leads on to ${host}.`}
        noindex
      >
        <article>
          <p className="category">On the way</p>
          <h1>
            {stays ? "This leads to" : "You are on the way to"} {host}
          </h1>
          {notice.text ? <p className="lead">{notice.text}</p> : null}
          <p>
            <a href={to} rel={rel || undefined}>
              Go on now
            </a>
            {stays ? "." : `, or wait ${notice.seconds === 1 ? "a second" : `${notice.seconds} seconds`}.`}
          </p>
          {stays ? null : (
            <p>
              <a href="?stay=1" rel="nofollow">
                Stay on this page until I choose
              </a>
            </p>
          )}
        </article>
      </SiteDocument>,
    )
  );
}

/** What a reader gets while the system cannot be had in which a page stands. */
export function awayDocument(frame: SiteFrame): string {
  return (
    DOCTYPE +
    renderToStaticMarkup(
      <SiteDocument frame={frame} title="Not to be had at the moment" noindex>
        <article>
          <p className="category">A moment</p>
          <h1>This page cannot be shown just now</h1>
          <p className="lead">It stands where nobody answers at the moment. Please try again in a minute.</p>
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
            Nothing has replaced <code>{address}</code>.
          </p>
          <p>
            Start at the <a href={frame.home}>front page of {frame.siteName}</a>.
          </p>
        </article>
      </SiteDocument>,
    )
  );
}
