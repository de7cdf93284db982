import { ExternalLink, X } from "lucide-react";
import { useMemo, useState, type KeyboardEvent } from "react";
import { READING_WORD, READINGS, readAs } from "../../../core/address/repair/read-as.ts";
import { homePhone } from "../../../core/address/repair/home-phone.ts";
import { looksLikeAddress, repairAddress } from "../../../core/address/repair/repair.ts";
import type { HeadingAnchor } from "../../../core/pages/body/headings.ts";
import { deliveredTag } from "../../../core/links/delivered-tag.ts";
import type { Site } from "../../../core/sites/site.ts";
import { formatOverride, parseOverride, type Override } from "../../../core/rules/override.ts";
import { fillAddress, variableNames } from "../../../core/text/variables.ts";
import { FieldRow } from "../../../ui/fields/FieldRow.tsx";
import { OtherReadings } from "../../../ui/links/OtherReadings.tsx";
import { ProgramHere } from "../../programs/ProgramHere.tsx";
import { ShortenHere } from "./ShortenHere.tsx";
import { RepairNotes } from "./RepairNotes.tsx";
import { KIND_WORD, Knot } from "../../../ui/links/Knot.tsx";
import { useJudge, type DeliveredLink, type PageFields } from "../rope/use-delivered.ts";
import { AttributeChoices } from "./AttributeChoices.tsx";
import { CreativeChoice, type ChosenCreative } from "./CreativeChoice.tsx";
import { DestinationField } from "./DestinationField.tsx";
import type { LinkAt, LinkAttributes } from "./editor-links.ts";
import { useDestinations } from "./use-destinations.ts";

/** Makes, changes or removes one link, beside its words or picture. Enter sets it, Escape leaves it as it was. */
export function LinkComposer(props: {
  site: Site;
  at: LinkAt;
  page: PageFields;
  /** The page's id, for the label of a tracked link. */
  pageId: string;
  headings: readonly HeadingAnchor[];
  onCreative: (chosen: ChosenCreative) => void;
  onSet: (link: LinkAttributes & { words: string }) => void;
  onRemove: () => void;
  onClose: () => void;
}) {
  const { site, at } = props;
  const [pasted, setPasted] = useState(at.address ?? at.link?.href ?? "");
  // Until somebody writes other words here, they are those that stand in the text.
  const [written, setWords] = useState<string>();
  const words = written ?? at.words;
  const [title, setTitle] = useState(at.link?.title ?? "");
  const [keeps, setKeeps] = useState(at.link?.download !== null && at.link?.download !== undefined);
  const [override, setOverride] = useState<Override>(() => parseOverride(at.link?.override ?? "").override);
  const [slug, setSlug] = useState("");
  const [tried, setTried] = useState(false);

  const repaired = repairAddress(pasted, {
    privateHosts: [location.host],
    ownHosts: site.hosts.map(({ name }) => name),
    ...(site.country ? { homePhone: (text: string) => homePhone(text, site.country) } : {}),
  });
  const address = repaired.ok ? withPlaces(repaired.address) : "";
  const asked = useMemo(() => (address ? [address] : []), [address]);
  const { judge } = useJudge(site, props.page, asked);
  const link: LinkAttributes = {
    href: address,
    title: title.trim() || null,
    rel: at.link?.rel ?? null,
    target: at.link?.target ?? null,
    download: null,
    override: formatOverride(override) ?? null,
    creative: at.link?.href === address ? at.link.creative : null,
  };
  const judged = judge({ ...link, anchor: at.picture ? "image" : "text" });
  if (keeps && judged?.kind === "file") link.download = at.link?.download ?? "";
  const label = words.trim() || (repaired.ok && !at.picture ? bareWords(address) : "");
  const searching = !repaired.ok && pasted.trim().length > 1 && !looksLikeAddress(pasted);
  const { found, asked: searched } = useDestinations(site, pasted, props.headings);
  const offered = found.filter((destination) => destination.address !== pasted);

  const set = (): void => {
    setTried(true);
    if (repaired.ok && !at.gone) props.onSet({ ...link, words: label });
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    props.onClose();
  };
  const refusal =
    !repaired.ok && (tried || (pasted.trim() !== "" && !searching)) ? repaired.reason.message : undefined;
  const nothing = searching && searched && found.length === 0;

  return (
    <form
      aria-label={at.link ? "Change link" : "New link"}
      ref={showWhole}
      className="scroll-my-16 rounded border border-accent bg-sheet p-3 shadow-xl"
      onKeyDown={onKeyDown}
      onSubmit={(event) => {
        event.preventDefault();
        set();
      }}
    >
      <div className="grid grid-cols-[minmax(0,1fr)] gap-2.5">
        {at.gone ? (
          <p role="alert" className="text-bad">
            {at.picture
              ? "The picture that this was opened on is"
              : at.words
                ? `The words “${at.words}”, on which this was opened, are`
                : "The place that this was opened on is"}{" "}
            not in the text any more. Nothing will be set; close this, and mark the words anew.
          </p>
        ) : null}
        <DestinationField
          value={pasted}
          found={offered}
          error={refusal}
          hint={
            judged ? (
              <KindLine judged={judged} address={fillAddress(address, site.variables)} />
            ) : nothing ? (
              "No page, short link, file or heading has these words. An address has a dot in its host."
            ) : searching ? (
              "Understood as words to look for."
            ) : undefined
          }
          onChange={setPasted}
          onPick={(destination) => setPasted(destination.address)}
        />
        {pasted.trim() !== "" ? (
          <p className="flex flex-wrap gap-x-2 text-xs text-quiet">
            Meant otherwise? Read it as
            {READINGS.map((reading) => (
              <button
                key={reading}
                type="button"
                className="text-accent underline underline-offset-2"
                onClick={() => setPasted(readAs(pasted, reading))}
              >
                {READING_WORD[reading]}
              </button>
            ))}
          </p>
        ) : null}
        <RepairNotes repaired={repaired} address={address} />
        <OtherReadings others={repaired.others} onMeant={setPasted} />
        {address ? (
          <ProgramHere
            key={address}
            site={site}
            address={judged?.ends ?? fillAddress(address, site.variables)}
            page={props.pageId}
            onTracked={(built) => {
              setPasted(built.address);
              setSlug(built.slug);
            }}
          />
        ) : null}
        {address && !(at.picture && address === at.link?.href) ? null : (
          <CreativeChoice site={site} pageId={props.pageId} onChosen={props.onCreative} />
        )}
        <div className="grid grid-cols-2 gap-2">
          <FieldRow label={at.picture ? "Alternative text" : "Words"}>
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={words}
                placeholder={label}
                onChange={(event) => setWords(event.target.value)}
              />
            )}
          </FieldRow>
          <FieldRow label="Title on hover">
            {(attributes) => (
              <input
                {...attributes}
                className="field"
                value={title}
                onChange={(event) => setTitle(event.target.value)}
              />
            )}
          </FieldRow>
        </div>
        {judged?.kind === "file" ? (
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" checked={keeps} onChange={(event) => setKeeps(event.target.checked)} />
            Downloads the file instead of opening it in the browser
          </label>
        ) : null}
        <AttributeChoices resolved={judged?.resolved} override={override} onChange={setOverride} />
        {judged ? (
          <div>
            <p className="text-sm font-medium">Delivered</p>
            <code
              data-testid="delivered"
              className="block rounded bg-sunk px-2 py-1.5 font-mono text-xs break-all"
            >
              {deliveredTag(
                { ...link, href: fillAddress(address, site.variables), words: label },
                judged.resolved,
              )}
            </code>
          </div>
        ) : null}
        <div className="flex flex-wrap items-center gap-2">
          <button type="submit" className="action action-main" disabled={at.gone}>
            Set link
          </button>
          {repaired.ok ? (
            <a
              className="action"
              href={tryAddress(site, fillAddress(address, site.variables))}
              target="_blank"
              rel="noopener noreferrer"
            >
              Try it <ExternalLink size={14} aria-hidden />
            </a>
          ) : null}
          {repaired.ok && judged?.kind === "external" ? (
            <ShortenHere
              key={address}
              site={site}
              destination={fillAddress(address, site.variables)}
              title={words || title}
              slug={slug}
              onMade={setPasted}
            />
          ) : null}
          {at.link && !at.gone ? (
            <button type="button" className="action action-plain text-bad" onClick={props.onRemove}>
              Remove link
            </button>
          ) : null}
          <button
            type="button"
            className="action action-plain ml-auto px-1"
            aria-label="Close without changing"
            onClick={props.onClose}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      </div>
    </form>
  );
}

// Beside words at the end of the screen the panel would open, or grow, below it.
function showWhole(form: HTMLFormElement | null): (() => void) | undefined {
  if (!form) return undefined;
  const observer = new ResizeObserver(() => form.scrollIntoView({ block: "nearest" }));
  observer.observe(form);
  return () => observer.disconnect();
}

function KindLine({ judged, address }: { judged: DeliveredLink; address: string }) {
  const { kind, ends, look } = judged;
  return (
    <span className={`flex items-center gap-1.5 ${kind === "broken" ? "text-bad" : ""}`}>
      <Knot kind={kind} size={14} /> Understood as {KIND_WORD[kind]}
      {look.title ? <span className="truncate">: “{look.title}”</span> : null}
      {look.draft ? <span className="text-warn">(draft)</span> : null}
      {ends !== address ? <span className="truncate"> that ends at {ends}</span> : null}
    </span>
  );
}

// Repair percent-encodes the braces of a place that a site variable fills; they are written as people write them.
function withPlaces(address: string): string {
  return variableNames(address).reduce(
    (text, name) => text.replace(new RegExp(`%7B%7B\\s*${name}\\s*%7D%7D`, "gi"), `{{${name}}}`),
    address,
  );
}

// A path of the site means its primary host, not the workspace.
function tryAddress(site: Site, address: string): string {
  const home = site.hosts.find(({ role }) => role === "primary")!.url;
  return address.startsWith("/") ? new URL(address, home).href : address;
}

function bareWords(address: string): string {
  return address.replace(/^(?:https?:\/\/|mailto:|tel:)(?:www\.)?/, "").replace(/\/$/, "");
}
