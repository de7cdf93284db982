import { useQuery } from "@tanstack/react-query";
import { Copy, ExternalLink, Footprints, Link2, PencilLine } from "lucide-react";
import type { PasteAnswer } from "../../../core/links/paste.ts";
import type { BuiltProgramLink } from "../../../core/programs/program.ts";
import type { Route } from "../../../core/routes/route.ts";
import type { FrameSite } from "../../../ui/frame/frame-site.ts";
import { AddressText } from "../../../ui/links/AddressText.tsx";
import { copyText } from "../../../ui/keys/copy.ts";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { ProgramHere } from "../../programs/ProgramHere.tsx";
import { OtherReadings } from "../../../ui/links/OtherReadings.tsx";
import { asking } from "../../../ui/client/queries.ts";
import { SnippetKeep } from "./SnippetKeep.tsx";
import * as say from "../words.ts";

/** What is known of something pasted, and what can be done with it. */
export default function PasteKnown(props: {
  site: FrameSite;
  text: string;
  known: PasteAnswer;
  making: boolean;
  onMake: () => void;
  /** It stands in the text, or is kept: the field has done its work. */
  onInserted: () => void;
  onTracked: (built: BuiltProgramLink) => void;
  /** Another reading was meant. */
  onMeant: (text: string) => void;
}) {
  const { site, known } = props;
  const whole = useQuery(asking("GET /sites/:site", { site: site.id })).data;
  const snippet = known.snippet ? (
    <SnippetKeep
      key={props.text}
      site={site}
      html={props.text}
      snippet={known.snippet}
      onKept={props.onInserted}
    />
  ) : null;
  if (known.form === "refused") {
    return (
      snippet ?? (
        <>
          <p role="alert" className="text-bad">
            {known.refusal}
          </p>
          <OtherReadings others={known.others} onMeant={props.onMeant} />
        </>
      )
    );
  }
  if (known.form === "words" || !known.address || !known.kind)
    return <Found site={site} known={known} text={props.text} />;
  const address = known.address;
  const attributes = known.attributes
    ? [...known.attributes.rel, known.attributes.target === "_blank" ? say.inANewTab : say.inTheSameTab].join(
        " ",
      )
    : "";
  return (
    <div className="grid gap-2">
      <p className="flex flex-wrap items-baseline gap-x-2">
        <span className="self-center">
          <Knot kind={known.kind} />
        </span>
        <AddressText address={address} most={90} />{" "}
        <span className="text-quiet">{KIND_WORD[known.kind]}</span>
      </p>
      <ul className="text-sm">
        {known.repairs.map((repair) => (
          <li key={repair} className="text-good">
            {repair}
          </li>
        ))}
        {known.warnings.map((warning) => (
          <li key={warning} className="text-warn">
            {warning}
          </li>
        ))}
        {known.answeredBy ? (
          <li className={known.kind === "broken" ? "text-bad" : ""}>{say.answeredBy(known.answeredBy)}</li>
        ) : null}
        <li className="text-quiet">
          {say.aLinkToItIsDelivered(
            attributes,
            known.attributes?.trace[0] ? ` (${known.attributes.trace.at(-1)!.by})` : "",
          )}
        </li>
      </ul>
      <OtherReadings others={known.others} onMeant={props.onMeant} />
      {whole ? (
        <ProgramHere
          key={address}
          site={whole}
          address={known.ends ?? address}
          onTracked={(built) => props.onTracked(built)}
        />
      ) : null}
      {known.shortLinks.map((route) => (
        <ShortLinkLine key={route.id} route={route} />
      ))}
      {known.pages.length > 0 ? (
        <p className="text-sm">
          {say.linkedOn}{" "}
          {known.pages.map((page, index) => (
            <span key={page.id}>
              {index > 0 ? ", " : ""}
              <a className="text-accent underline" href={`/${site.key}/pages/${page.id}`}>
                {page.title}
              </a>
            </span>
          ))}
        </p>
      ) : null}
      {snippet}
      {props.making ? null : <Actions {...props} address={address} />}
    </div>
  );
}

function Actions(props: {
  site: FrameSite;
  known: PasteAnswer;
  address: string;
  onMake: () => void;
  onInserted: () => void;
}) {
  const { known, address } = props;
  const writing = document.documentElement.dataset.writing === "yes";
  const own = known.kind !== "external";
  return (
    <div className="flex flex-wrap gap-2">
      {known.form === "web" || known.form === "path" ? (
        <button data-needs="editor" className="action action-main" onClick={props.onMake}>
          <Link2 size={15} aria-hidden /> {say.makeAShortLink}
        </button>
      ) : null}
      {writing ? (
        <button
          data-needs="editor"
          className="action"
          onClick={() => {
            dispatchEvent(new CustomEvent("maprope:insert", { detail: address }));
            props.onInserted();
          }}
        >
          <PencilLine size={15} aria-hidden /> {say.linkMarkedWordsToIt}
        </button>
      ) : null}
      {own && known.kind === "broken" && known.form === "path" ? (
        <a
          className="action"
          href={`/${props.site.key}/routes?open=new-redirect&at=${encodeURIComponent(address)}`}
        >
          {say.makeARedirect}
        </a>
      ) : null}
      <a
        className="action"
        href={
          address.startsWith("/")
            ? new URL(address, props.site.hosts.find(({ role }) => role === "primary")!.url).href
            : address
        }
        target="_blank"
        rel="noopener noreferrer"
      >
        {say.openIt} <ExternalLink size={14} aria-hidden />
      </a>
      {known.form === "web" || known.form === "path" ? (
        <a className="action" href={`/${props.site.key}/trace?of=${encodeURIComponent(address)}`}>
          {say.traceIt} <Footprints size={14} aria-hidden />
        </a>
      ) : null}
    </div>
  );
}

function ShortLinkLine({ route }: { route: Route }) {
  return (
    <p className="flex flex-wrap items-center gap-2 rounded bg-wash px-2 py-1 text-sm">
      {say.itHasAShortLink} <AddressText address={route.url} />{" "}
      <span className="text-quiet">{say.clicks(route.clicks)}</span>
      <button className="action ml-auto py-0.5" onClick={() => void copyText(route.url)}>
        <Copy size={13} aria-hidden /> {say.copy}
      </button>
    </p>
  );
}

function Found({ site, known, text }: { site: FrameSite; known: PasteAnswer; text: string }) {
  if (known.pages.length + known.routes.length === 0)
    return <p className="text-quiet">{say.noPageShortLinkOrRedirectHas(text.trim())}</p>;
  return (
    <ul aria-label={say.found}>
      {known.pages.map((page) => (
        <li key={page.id}>
          <a
            className="flex items-center gap-2 rounded px-1.5 py-1 hover:bg-wash focus:bg-wash"
            href={`/${site.key}/pages/${page.id}`}
          >
            <Knot kind="page" /> {page.title} <span className="text-sm text-quiet">{say.page}</span>
            <span className="ml-auto font-mono text-xs text-quiet">{page.path}</span>
          </a>
        </li>
      ))}
      {known.routes.map((route) => (
        <li key={route.id}>
          <a
            className="flex items-center gap-2 rounded px-1.5 py-1 hover:bg-wash focus:bg-wash"
            href={`/${site.key}/routes?open=${route.id}`}
          >
            <Knot kind="route" /> <AddressText address={route.url} />{" "}
            <span className="text-sm text-quiet">{route.kind === "short" ? say.shortLink : route.kind}</span>
            <span className="ml-auto truncate text-sm text-quiet">{route.title}</span>
          </a>
        </li>
      ))}
    </ul>
  );
}
